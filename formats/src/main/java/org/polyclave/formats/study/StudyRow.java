package org.polyclave.formats.study;

import com.fasterxml.jackson.annotation.JsonIgnore;
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
 */
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
        Naming naming) {
    public StudyRow {
        hazards = List.copyOf(hazards);
        status = List.copyOf(status);
        hybridOf = List.copyOf(hybridOf);
        names = Missing.or(names, Names.NONE);
        occurrence = Missing.or(occurrence, Occurrence.NOT_SAID);
        placements = Missing.list(placements);
        naming = Missing.or(naming, Naming.POSSIBLE);
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
                Naming.POSSIBLE);
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

    public StudyRow withId(String newId) {
        return copy(newId, label, rank, parent, hazard, hazards, hybridOf, description, names, occurrence);
    }

    public StudyRow withLabel(String newLabel) {
        return copy(id, newLabel, rank, parent, hazard, hazards, hybridOf, description, names, occurrence);
    }

    public StudyRow withRank(String newRank) {
        return copy(id, label, newRank, parent, hazard, hazards, hybridOf, description, names, occurrence);
    }

    public StudyRow withParent(@Nullable String newParent) {
        return copy(id, label, rank, newParent, hazard, hazards, hybridOf, description, names, occurrence);
    }

    public StudyRow withHazard(Hazard newHazard) {
        return copy(id, label, rank, parent, newHazard, hazards, hybridOf, description, names, occurrence);
    }

    public StudyRow withHazards(Hazard worst, List<HazardRecord> newHazards) {
        return copy(id, label, rank, parent, worst, newHazards, hybridOf, description, names, occurrence);
    }

    public StudyRow withHybridOf(List<String> parents) {
        return copy(id, label, rank, parent, hazard, hazards, parents, description, names, occurrence);
    }

    public StudyRow withDescription(String newDescription) {
        return copy(id, label, rank, parent, hazard, hazards, hybridOf, newDescription, names, occurrence);
    }

    public StudyRow withNames(Names newNames) {
        return copy(id, label, rank, parent, hazard, hazards, hybridOf, description, newNames, occurrence);
    }

    public StudyRow withOccurrence(Occurrence newOccurrence) {
        return copy(id, label, rank, parent, hazard, hazards, hybridOf, description, names, newOccurrence);
    }

    private StudyRow copy(
            String newId,
            String newLabel,
            String newRank,
            @Nullable String newParent,
            Hazard newHazard,
            List<HazardRecord> newHazards,
            List<String> newHybridOf,
            String newDescription,
            Names newNames,
            Occurrence newOccurrence) {
        return new StudyRow(
                newId,
                newLabel,
                plain,
                newRank,
                newParent,
                stage,
                newHazard,
                newHazards,
                status,
                weight,
                stopsHere,
                newHybridOf,
                newDescription,
                newNames,
                newOccurrence,
                placements,
                naming);
    }

    /** Whether its places are not to be told: protected, regulated and quarantine taxa, wherever they are so. */
    @JsonIgnore
    public boolean isSensitive() {
        Stream<String> regional = occurrence.regions().stream().map(RegionalStatus::status);
        return Stream.concat(status.stream(), regional)
                .anyMatch(s -> s.matches("(?iu).*\\b(protected|regulated|quarantine)\\b.*"));
    }

    @JsonIgnore
    public boolean isSemaphoront() {
        return !stage.isEmpty();
    }

    /** Name with its stage: "Name, juvenile". */
    @JsonIgnore
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

    /** Whether specimens can be named. */
    public enum Naming {
        POSSIBLE,
        /** Not further than this: old cultivars, worn specimens. */
        NOT_FURTHER
    }
}
