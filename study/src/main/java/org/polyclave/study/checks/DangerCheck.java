package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.danger.DangerReport;
import org.polyclave.study.danger.DangerReport.Danger;
import org.polyclave.study.danger.DangerReport.Failing;
import org.polyclave.study.danger.DangerReport.Kind;
import org.polyclave.study.notation.MonthNotation;

/** Finds dangers that readers of a key could never rule out, or that are in no key. */
final class DangerCheck {
    private DangerCheck() {}

    static List<StudyFinding> of(CompiledStudy compiled) {
        List<StudyFinding> found = new ArrayList<>();
        for (Danger danger : DangerReport.of(compiled)) {
            List<Failing> blocking =
                    danger.failing().stream().filter(Failing::blocking).toList();
            if (!blocking.isEmpty()) {
                boolean inKey = blocking.get(0).kind() != Kind.NOT_IN_KEY;
                found.add(
                        inKey
                                ? notRuledOut(danger, blocking)
                                : StudyFinding.of(FindingKind.DANGER_IN_NO_KEY, danger.row(), "")
                                        .with("row", danger.name()));
            }
        }
        return found;
    }

    private static StudyFinding notRuledOut(Danger danger, List<Failing> blocking) {
        return StudyFinding.of(FindingKind.DANGER_NOT_RULED_OUT, danger.row(), "")
                .with("row", danger.name())
                .withEach(
                        "against",
                        blocking.stream().map(DangerCheck::namesAndMonths).toList())
                .with("remedy", danger.remedy().name())
                .with("cells", danger.cells().size());
    }

    private static Map<String, Object> namesAndMonths(Failing failing) {
        return Map.of(
                "names",
                failing.otherNames(),
                "months",
                failing.months().size() == 12 ? "" : MonthNotation.print(failing.months()));
    }
}
