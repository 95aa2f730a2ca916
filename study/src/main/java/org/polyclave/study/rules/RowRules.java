package org.polyclave.study.rules;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.rules.StudyRules.Violation;

/** What must hold of taxa, sexes and stages. */
final class RowRules {
    private RowRules() {}

    static void check(Study study, List<Violation> found) {
        if (study.rows().size() > Limits.TAXA) {
            found.add(Violation.of("", "rows", Rule.TOO_MANY_ROWS, "most", Limits.TAXA));
        }
        Map<String, StudyRow> rows = StudyRules.byId(study.rows(), StudyRow::id);
        Map<String, StudyRow> names = new HashMap<>();
        for (StudyRow row : study.rows()) {
            if (row.label().isBlank()) {
                found.add(Violation.of(place(row), "label", Rule.ROW_WITHOUT_NAME));
            }
            StudyRow same = names.putIfAbsent(StudyRules.folded(row.name()), row);
            if (same != null) {
                found.add(Violation.of(
                        place(row), "label", Rule.ROWS_OF_ONE_NAME, "row", row.name(), "other", same.name()));
            }
            if (!(row.weight() > 0)) {
                found.add(Violation.of(place(row), "weight", Rule.WEIGHT, "row", row.name()));
            }
            checkParent(row, rows, found);
            checkConstant(study, row, found);
            for (String parent : row.hybridOf()) {
                if (parent.equals(row.id()) || !rows.containsKey(parent)) {
                    found.add(Violation.of(place(row), "hybridOf", Rule.HYBRID, "row", row.name(), "parent", parent));
                }
            }
        }
    }

    /** What is said to be the same in all sexes, stages and morphs of a taxon must not differ in one of them. */
    private static void checkConstant(Study study, StudyRow row, List<Violation> found) {
        for (String id : row.constant()) {
            List<String> differing = study.character(id).isEmpty()
                    ? List.of()
                    : study.scores().stream()
                            .filter(s -> s.character().equals(id))
                            .filter(s -> study.row(s.row())
                                    .filter(r -> r.isSemaphoront() && row.id().equals(r.parent()))
                                    .isPresent())
                            .filter(s -> !(s.value() instanceof ScoreValue.Unknown))
                            .map(s -> study.row(s.row()).orElseThrow().name())
                            .toList();
            if (study.character(id).isEmpty()) {
                found.add(Violation.of(
                        place(row), "constant", Rule.CONSTANT_UNKNOWN, "character", id, "row", row.name()));
            } else if (!differing.isEmpty()) {
                found.add(Violation.of(
                        place(row),
                        "constant",
                        Rule.CONSTANT_DIFFERS,
                        "character",
                        study.character(id).orElseThrow().label(),
                        "row",
                        row.name(),
                        "rows",
                        differing));
            }
        }
    }

    private static void checkParent(StudyRow row, Map<String, StudyRow> rows, List<Violation> found) {
        if (row.parent() == null) {
            if (row.isSemaphoront()) {
                found.add(Violation.of(place(row), "parent", Rule.STAGE_WITHOUT_TAXON, "row", row.name()));
            }
            return;
        }
        StudyRow parent = rows.get(row.parent());
        if (parent == null) {
            found.add(
                    Violation.of(place(row), "parent", Rule.UNKNOWN_PARENT, "row", row.name(), "parent", row.parent()));
        } else if (isOwnAncestor(row, rows)) {
            found.add(Violation.of(place(row), "parent", Rule.OWN_ANCESTOR, "row", row.name()));
        } else if (parent.isSemaphoront() && !row.isSemaphoront()) {
            found.add(Violation.of(
                    place(row), "parent", Rule.TAXON_BELOW_STAGE, "row", row.name(), "parent", parent.name()));
        } else if (!row.isSemaphoront() && !Ranks.mayContain(parent.rank(), row.rank())) {
            found.add(Violation.of(
                    place(row),
                    "rank",
                    Rule.RANK,
                    "row",
                    row.name(),
                    "rank",
                    row.rank(),
                    "parent",
                    parent.name(),
                    "parentRank",
                    parent.rank()));
        }
    }

    private static boolean isOwnAncestor(StudyRow row, Map<String, StudyRow> rows) {
        Set<String> passed = new HashSet<>();
        @Nullable StudyRow at = row;
        while (at != null && passed.add(at.id())) {
            at = at.parent() == null ? null : rows.get(at.parent());
            if (at != null && at.id().equals(row.id())) {
                return true;
            }
        }
        return false;
    }

    private static String place(StudyRow row) {
        return "row/" + row.id();
    }
}
