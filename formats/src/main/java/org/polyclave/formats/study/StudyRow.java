package org.polyclave.formats.study;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.util.List;
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
        String description) {
    public StudyRow {
        hazards = List.copyOf(hazards);
        status = List.copyOf(status);
        hybridOf = List.copyOf(hybridOf);
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
        return with(newId, label, rank, parent, hazard);
    }

    public StudyRow withLabel(String newLabel) {
        return with(id, newLabel, rank, parent, hazard);
    }

    public StudyRow withRank(String newRank) {
        return with(id, label, newRank, parent, hazard);
    }

    public StudyRow withParent(@Nullable String newParent) {
        return with(id, label, rank, newParent, hazard);
    }

    public StudyRow withHazard(Hazard newHazard) {
        return with(id, label, rank, parent, newHazard);
    }

    private StudyRow with(String newId, String newLabel, String newRank, @Nullable String newParent, Hazard newHazard) {
        return new StudyRow(
                newId,
                newLabel,
                plain,
                newRank,
                newParent,
                stage,
                newHazard,
                hazards,
                status,
                weight,
                stopsHere,
                hybridOf,
                description);
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
}
