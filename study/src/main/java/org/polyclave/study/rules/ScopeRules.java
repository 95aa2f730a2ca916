package org.polyclave.study.rules;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.rules.StudyRules.Violation;

/** What must hold of the losses by wrong names and the groups of lookalikes that the scope names. */
final class ScopeRules {
    private ScopeRules() {}

    static void check(Study study, List<Violation> found) {
        checkLosses(study, found);
        checkLookalikes(study, found);
    }

    private static final double MOST_TIMES = 1000;

    private static void checkLosses(Study study, List<Violation> found) {
        Set<String> pairs = new HashSet<>();
        for (StudyScope.Loss loss : study.scope().losses()) {
            for (String row : List.of(loss.row(), loss.named())) {
                if (study.row(row).isEmpty()) {
                    found.add(Violation.of("scope", "losses", Rule.LOSS_UNKNOWN, "row", row));
                }
            }
            if (loss.row().equals(loss.named()) || !pairs.add(loss.row() + '/' + loss.named())) {
                found.add(Violation.of("scope", "losses", Rule.LOSS_PAIR, "row", loss.row(), "named", loss.named()));
            }
            if (!(loss.times() > 0 && loss.times() <= MOST_TIMES)) {
                found.add(Violation.of("scope", "losses", Rule.LOSS_TIMES, "times", loss.times()));
            }
        }
    }

    private static void checkLookalikes(Study study, List<Violation> found) {
        Set<String> names = new HashSet<>();
        for (StudyScope.Lookalikes group : study.scope().lookalikes()) {
            if (group.name().isBlank() || !names.add(group.name())) {
                found.add(Violation.of("scope", "lookalikes", Rule.LOOKALIKES_WITHOUT_NAME, "group", group.name()));
            }
            if (Set.copyOf(group.rows()).size() < 2) {
                found.add(Violation.of("scope", "lookalikes", Rule.LOOKALIKES_OF_ONE, "group", group.name()));
            }
            for (String row : group.rows()) {
                if (study.row(row).isEmpty()) {
                    found.add(Violation.of(
                            "scope", "lookalikes", Rule.LOOKALIKE_UNKNOWN, "group", group.name(), "row", row));
                }
            }
        }
    }
}
