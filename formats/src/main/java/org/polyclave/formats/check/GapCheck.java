package org.polyclave.formats.check;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.polyclave.formats.study.CompiledStudy;
import org.polyclave.formats.study.Inheritance;
import org.polyclave.formats.study.ScoreValue;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyCharacter;
import org.polyclave.formats.study.StudyRow;
import org.polyclave.formats.study.StudyScore;

/** Finds what is thin or missing: rows that only a text or only their parent speaks for, small samples, pictures. */
final class GapCheck {
    /** Fewer individuals than these give no range (Measuring, proposed cells). */
    private static final int FEWEST_INDIVIDUALS = 5;

    private GapCheck() {}

    static List<StudyFinding> of(CompiledStudy compiled, Inheritance inheritance) {
        List<StudyFinding> found = new ArrayList<>();
        rows(compiled, inheritance, found);
        samples(compiled.study(), found);
        pictures(compiled.study(), found);
        return found;
    }

    private static void rows(CompiledStudy compiled, Inheritance inheritance, List<StudyFinding> found) {
        Study study = compiled.study();
        Set<String> scored = new HashSet<>();
        study.scores().forEach(s -> scored.add(s.row()));
        for (StudyRow row : compiled.rows()) {
            if (scored.contains(row.id()) || !row.hybridOf().isEmpty()) {
                continue;
            }
            boolean inherits = study.characters().stream()
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
    }

    private static void samples(Study study, List<StudyFinding> found) {
        for (StudyScore score : study.scores()) {
            Integer individuals = score.sample() == null ? null : score.sample().individuals();
            if (score.value() instanceof ScoreValue.Range && individuals != null && individuals < FEWEST_INDIVIDUALS) {
                String of = individuals == 1 ? "one individual" : individuals + " individuals";
                found.add(new StudyFinding(
                        "few-individuals",
                        score.row(),
                        score.character(),
                        "",
                        "This range rests on " + of + ": the next one may lie outside. Measure at least "
                                + FEWEST_INDIVIDUALS + ", better 40."));
            }
        }
    }

    /** States without a picture are told where others have one; where none has, once for the study. */
    private static void pictures(Study study, List<StudyFinding> found) {
        boolean some = study.characters().stream()
                .flatMap(c -> c.states().stream())
                .anyMatch(s -> !s.picture().isEmpty());
        boolean states = study.characters().stream().anyMatch(c -> !c.states().isEmpty());
        if (!some && states) {
            found.add(new StudyFinding(
                    "no-picture",
                    "",
                    "",
                    "",
                    "No state has a picture. Readers compare pictures more surely than words; add some."));
        }
        for (StudyCharacter character : some ? study.characters() : List.<StudyCharacter>of()) {
            List<String> without = character.states().stream()
                    .filter(s -> s.picture().isEmpty() && s.swatch().isEmpty() && !StudyCheck.PRESENCE.contains(s.id()))
                    .map(StudyCharacter.StudyState::label)
                    .toList();
            if (!without.isEmpty()) {
                found.add(new StudyFinding(
                        "no-picture",
                        "",
                        character.id(),
                        "",
                        "States of '" + character.label() + "' without a picture: " + String.join(", ", without)
                                + ". Readers compare pictures more surely than words."));
            }
        }
    }
}
