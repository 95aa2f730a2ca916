package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.Hazard;

/**
 * A taxon, or a sex or stage of one.
 *
 * @param label name as readers see it, without the stage
 * @param rank rank of a taxon: species, subspecies, nothotaxon ...
 * @param parent id of the row it belongs to
 * @param stage sex or stage; empty for a taxon
 * @param hazard worst recorded severity, or what is known of harm
 * @param hazards recorded hazards
 * @param weight how common it is, relative to the others
 * @param stopsHere whether keys may stop at this taxon without going to its parts
 * @param hybridOf ids of the parents of a hybrid
 * @param names authorship and other names
 * @param occurrence when and where it is met
 * @param placements where other classifications put it; the tree of the study is the one that is followed
 * @param naming whether specimens can be named as this
 * @param coverage what its children leave of it
 * @param assessment where the assessment of its hazard comes from
 * @param constant ids of characters that are the same in all its sexes, stages and morphs, as the author says
 */
@RecordBuilder
public record StudyRow(
        String id,
        String label,
        String plain,
        String rank,
        @Nullable String parent,
        String stage,
        Hazard hazard,
        List<HazardRecord> hazards,
        List<String> status,
        double weight,
        boolean stopsHere,
        List<String> hybridOf,
        String description,
        Names names,
        Occurrence occurrence,
        List<Placement> placements,
        Naming naming,
        Coverage coverage,
        Assessment assessment,
        List<String> constant)
        implements StudyRowBuilder.With {
    public StudyRow {
        hazards = List.copyOf(hazards);
        status = List.copyOf(status);
        hybridOf = List.copyOf(hybridOf);
        names = Defaults.or(names, Names.NONE);
        occurrence = Defaults.or(occurrence, Occurrence.NOT_SAID);
        placements = Defaults.list(placements);
        naming = Defaults.or(naming, Naming.POSSIBLE);
        coverage = Defaults.or(coverage, Coverage.BY_RULE);
        assessment = Defaults.or(assessment, Assessment.NOT_SAID);
        constant = Defaults.list(constant);
    }

    /** A row with no other names, and nothing said of when and where it is met. */
    public StudyRow(
            String id,
            String label,
            String plain,
            String rank,
            @Nullable String parent,
            String stage,
            Hazard hazard,
            List<HazardRecord> hazards,
            List<String> status,
            double weight,
            boolean stopsHere,
            List<String> hybridOf,
            String description) {
        this(
                id,
                label,
                plain,
                rank,
                parent,
                stage,
                hazard,
                hazards,
                status,
                weight,
                stopsHere,
                hybridOf,
                description,
                Names.NONE,
                Occurrence.NOT_SAID,
                List.of(),
                Naming.POSSIBLE,
                Coverage.BY_RULE,
                Assessment.NOT_SAID,
                List.of());
    }

    /** A row with a name and everything else at its default. */
    public static StudyRow of(String label) {
        return new StudyRow(
                Slug.of(label),
                label,
                "",
                "species",
                null,
                "",
                Hazard.NOT_ASSESSED,
                List.of(),
                List.of(),
                1,
                false,
                List.of(),
                "");
    }

    public StudyRow withHazards(Hazard worst, List<HazardRecord> newHazards) {
        return with().hazard(worst).hazards(newHazards).build();
    }

    /** Whether its places are not to be told: protected, regulated and quarantine taxa, wherever they are so. */
    public boolean isSensitive() {
        Stream<String> regional = occurrence.regions().stream().map(RegionalStatus::status);
        return Stream.concat(status.stream(), regional)
                .anyMatch(s -> s.matches("(?iu).*\\b(protected|regulated|quarantine)\\b.*"));
    }

    public boolean isSemaphoront() {
        return !stage.isEmpty();
    }

    /** Name with its stage: "Name, juvenile". */
    public String name() {
        return stage.isEmpty() ? label : label + ", " + stage;
    }

    /** One way in which a taxon can do harm. */
    public record HazardRecord(String kind, Hazard severity, List<String> routes, String parts, String caution) {
        public HazardRecord {
            routes = List.copyOf(routes);
        }
    }

    /** @param authorship of the scientific name */
    public record Names(String authorship, List<Synonym> synonyms, List<Vernacular> vernacular) {
        public static final Names NONE = new Names("", List.of(), List.of());

        public Names {
            synonyms = List.copyOf(synonyms);
            vernacular = List.copyOf(vernacular);
        }
    }

    /**
     * Another scientific name.
     *
     * @param misapplied whether the name belongs to another taxon and was used for this one in error
     * @param source where it is used so
     */
    public record Synonym(String name, String authorship, boolean misapplied, String source) {}

    /** @param language as a BCP 47 tag: en, cy, fr-CA */
    public record Vernacular(String name, String language) {}

    /**
     * When and where it is met.
     *
     * @param months numbers 1 to 12 in which it is present; empty: not said
     */
    public record Occurrence(List<Integer> months, String habitat, List<RegionalStatus> regions) {
        public static final Occurrence NOT_SAID = new Occurrence(List.of(), "", List.of());

        public Occurrence {
            months = List.copyOf(months);
            regions = List.copyOf(regions);
        }
    }

    /** Native, introduced, protected ... in a region, perhaps doubtfully. */
    public record RegionalStatus(String region, String status, boolean doubtful) {}

    /** Where another classification puts the taxon. */
    public record Placement(String parent, String source) {}

    /**
     * What the children of a row leave of it.
     *
     * @param covers whether they are all there is
     * @param rest what the author calls that which remains: "adult"; empty: named by the rule
     * @param describes what the row's own scores say when it has children
     */
    public record Coverage(Covers covers, String rest, Describes describes) {
        public static final Coverage BY_RULE = new Coverage(Covers.BY_RULE, "", Describes.BY_KIND);

        public Coverage {
            covers = Defaults.or(covers, Covers.BY_RULE);
            rest = Defaults.or(rest, "");
            describes = Defaults.or(describes, Describes.BY_KIND);
        }

        public Coverage with(Covers newCovers) {
            return new Coverage(newCovers, rest, describes);
        }
    }

    /** Whether the children of a row are all there is of it. */
    public enum Covers {
        /** By the rule: see the compiler of studies. */
        BY_RULE,
        ALL,
        /** There is more: a genus also stands for species that are not listed. */
        NOT_ALL
    }

    /** What the scores of a row with children say. */
    public enum Describes {
        /** The rest where its children are sexes, stages or morphs; the whole where they are taxa. */
        BY_KIND,
        REST,
        WHOLE
    }

    /**
     * Where the assessment of a hazard comes from.
     *
     * @param source who or what assessed it; a child of a dangerous taxon is harmless only by an assessment with a source
     * @param lowering a lower assessment that nobody else has confirmed yet; null if there is none
     */
    public record Assessment(String source, @Nullable Lowering lowering) {

        public static final Assessment NOT_SAID = new Assessment("", null);

        public Assessment {
            source = Defaults.or(source, "");
        }
    }

    /**
     * What was recorded before it was lowered; it stands until a second person confirms.
     *
     * @param hazard the higher severity
     * @param hazards what was recorded then
     * @param by account of whoever lowered it
     */
    public record Lowering(Hazard hazard, List<HazardRecord> hazards, String reason, String source, String by) {
        public Lowering {
            hazards = List.copyOf(hazards);
        }
    }

    /** Whether specimens can be named. */
    public enum Naming {
        POSSIBLE,
        /** Not further than this: old cultivars, worn specimens. */
        NOT_FURTHER
    }
}
