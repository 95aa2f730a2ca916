package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.danger.DangerReport;
import org.polyclave.study.danger.DangerReport.Danger;
import org.polyclave.study.danger.DangerReport.Failing;
import org.polyclave.study.danger.DangerReport.Kind;
import org.polyclave.study.notation.MonthNotation;

/** Finds dangers that readers of a key could never rule out, or that are in no key. */
final class DangerCheck {
    private static final int NAMED = 3;

    private DangerCheck() {}

    static List<StudyFinding> of(CompiledStudy compiled) {
        List<StudyFinding> found = new ArrayList<>();
        for (Danger danger : DangerReport.of(compiled)) {
            List<Failing> blocking =
                    danger.failing().stream().filter(Failing::blocking).toList();
            if (!blocking.isEmpty()) {
                boolean inKey = blocking.get(0).kind() != Kind.NOT_IN_KEY;
                found.add(
                        new StudyFinding(
                                inKey ? "danger-not-ruled-out" : "danger-in-no-key",
                                danger.row(),
                                "",
                                "",
                                inKey
                                        ? notRuledOut(danger, blocking)
                                        : "'" + danger.name()
                                                + "' is dangerous and not in any key. Score it, or tell readers of it in words."));
            }
        }
        return found;
    }

    private static String notRuledOut(Danger danger, List<Failing> blocking) {
        String against = blocking.stream()
                .map(f -> named(f.otherNames())
                        + (f.months().size() == 12 ? "" : " in " + MonthNotation.print(f.months())))
                .collect(Collectors.joining("; "));
        int cells = danger.cells().size();
        String remedy = switch (danger.remedy()) {
            case CONFIRM ->
                "Confirm " + (cells == 1 ? "one cell" : cells + " cells")
                        + " on the Dangers page, and more can be ruled out.";
            case NAME_PARTS -> "Say on which part each character is seen: those without a part count as on one.";
            case SCORE, NONE -> "Score more that separates them, on another part.";
        };
        return "Readers of a key cannot rule out '" + danger.name() + "' where it might be " + against + ". " + remedy;
    }

    private static String named(List<String> names) {
        String first = names.stream().limit(NAMED).map(n -> "'" + n + "'").collect(Collectors.joining(", "));
        return names.size() > NAMED ? first + " and " + (names.size() - NAMED) + " more" : first;
    }
}
