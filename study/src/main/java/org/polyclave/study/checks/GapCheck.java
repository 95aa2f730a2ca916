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
                found.add(new StudyFinding(
                        "only-described",
                        row.id(),
                        "",
                        "",
                        "'" + row.name() + "' is described, but has no score of its own: keys and comparisons know "
                                + (inherits ? "only what its parent shows" : "nothing of it")
                                + ". Score what its description says."));
            } else if (inherits) {
                found.add(new StudyFinding(
                        "only-inherited",
                        row.id(),
                        "",
                        "",
                        "'" + row.name() + "' has no score of its own: it shows what its parent shows."
                                + " Score what sets it apart, or let keys stop at its parent."));
            }
        }
        return found;
    }
}
