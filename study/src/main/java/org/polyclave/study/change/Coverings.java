package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.compile.Targets;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyRow.Covers;

/** Asks, by kind, whether what stands below the taxa of a study is all there is of them, and applies the answers. */
public final class Coverings {
    /** What stands below a taxon. */
    public enum Kind {
        TAXA_OF_HIGHER_TAXA,
        FORMS_OF_SPECIES,
        SEXES_AND_STAGES
    }

    /**
     * Taxa of which nobody has said it.
     *
     * @param covered what the rule says of them
     * @param rows their names
     */
    public record Asked(Kind kind, boolean covered, List<String> rows) {
        public Asked {
            rows = List.copyOf(rows);
        }
    }

    /** What somebody says of all taxa of a kind of which the rule says the same. */
    public record Answer(Kind kind, boolean covered, Covers covers) {}

    private record Group(Kind kind, boolean covered) {}

    private Coverings() {}

    /** Every kind that occurs; taxa of which the author has said it are not asked about. */
    public static List<Asked> of(Study study) {
        Map<Group, List<String>> groups = new LinkedHashMap<>();
        groups(study)
                .forEach((row, group) ->
                        groups.computeIfAbsent(group, g -> new ArrayList<>()).add(row.name()));
        List<Asked> asked = new ArrayList<>();
        groups.forEach((group, rows) -> asked.add(new Asked(group.kind(), group.covered(), rows)));
        asked.sort((a, b) -> a.kind().compareTo(b.kind()));
        return asked;
    }

    public static Study answered(Study study, List<Answer> answers) {
        Map<StudyRow, Group> groups = answers.isEmpty() ? Map.of() : groups(study);
        return groups.isEmpty()
                ? study
                : study.withRows(study.rows().stream()
                        .map(row -> answered(row, groups.get(row), answers))
                        .toList());
    }

    private static StudyRow answered(StudyRow row, @Nullable Group group, List<Answer> answers) {
        return answers.stream()
                .filter(a -> group != null && group.equals(new Group(a.kind(), a.covered())))
                .findFirst()
                .map(a -> row.withCoverage(row.coverage().with(a.covers())))
                .orElse(row);
    }

    private static Map<StudyRow, Group> groups(Study study) {
        Map<StudyRow, Group> groups = new LinkedHashMap<>();
        for (Targets.Parent parent : Targets.parents(study.rows(), study.scoresByRow())) {
            if (parent.row().coverage().covers() == Covers.BY_RULE) {
                Kind kind = parent.aboveSpecies()
                        ? Kind.TAXA_OF_HIGHER_TAXA
                        : parent.ofTaxa() ? Kind.FORMS_OF_SPECIES : Kind.SEXES_AND_STAGES;
                groups.put(parent.row(), new Group(kind, parent.covered()));
            }
        }
        return groups;
    }
}
