package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.model.StudyRow;

/** Finds rows that only a text or only their parent speaks for. */
final class GapCheck {
    private GapCheck() {}

    static List<StudyFinding> of(CompiledStudy compiled) {
        List<StudyFinding> found = new ArrayList<>();
        Inheritance inheritance = new Inheritance(compiled.study().rows(), compiled.scores());
        for (StudyRow row : compiled.rows()) {
            boolean scored = !compiled.scores().getOrDefault(row.id(), Map.of()).isEmpty();
            if (scored || !row.hybridOf().isEmpty()) {
                continue;
            }
            boolean inherits = compiled.study().characters().stream()
                    .anyMatch(c -> inheritance.effective(row.id(), c.id()).isPresent());
            if (!row.description().isBlank()) {
                found.add(StudyFinding.of(FindingKind.ONLY_DESCRIBED, row.id(), "")
                        .with("row", row.name())
                        .with("known", inherits ? "parent" : "nothing"));
            } else if (inherits) {
                found.add(StudyFinding.of(FindingKind.ONLY_INHERITED, row.id(), "")
                        .with("row", row.name()));
            }
        }
        return found;
    }
}
