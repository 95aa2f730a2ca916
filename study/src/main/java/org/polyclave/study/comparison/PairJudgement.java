package org.polyclave.study.comparison;

import java.util.List;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.separation.PairVerdicts;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.core.separation.Verdict;
import org.polyclave.study.compile.CompiledStudy;

/** How well two rows are separated under viewing conditions. */
public interface PairJudgement {
    Verdict verdict(int a, int b);

    /**
     * The verdicts under viewing conditions. Where only what may count against a danger counts, pairs of a dangerous and another row are
     * judged by usable evidence on different parts, as the gate before an edition and the margin of the any-order key are.
     */
    static PairJudgement of(CompiledStudy compiled, ViewingConditions conditions, PairVerdicts verdicts) {
        return of(compiled, conditions, verdicts::verdict);
    }

    /** @param plain the verdicts of what can be seen, whether or not it may count against a danger */
    static PairJudgement of(CompiledStudy compiled, ViewingConditions conditions, PairJudgement plain) {
        if (!conditions.safely()) {
            return plain;
        }
        Matrix matrix = compiled.matrix();
        UsableEvidence evidence = new UsableEvidence(matrix);
        StrictSeparation separation =
                new StrictSeparation(matrix, conditions.context().separation(compiled));
        return (a, b) -> {
            boolean grave = matrix.row(a).hazard().isDangerous();
            if (grave == matrix.row(b).hazard().isDangerous()) {
                return plain.verdict(a, b);
            }
            int danger = grave ? a : b;
            int other = grave ? b : a;
            Harm harm = matrix.row(a).harm().and(matrix.row(b).harm());
            List<Integer> usable = evidence.separating(danger, other).stream()
                    .filter(c -> separation.separates(danger, other, c))
                    .filter(c -> matrix.character(c).handling().advice(harm) != Handling.Advice.NEVER)
                    .toList();
            int features = evidence.features(usable);
            return features >= UsableEvidence.NEEDED
                    ? Verdict.FIRM
                    : features == 1
                            ? Verdict.THIN
                            : plain.verdict(a, b).compareTo(Verdict.TENDENCY) >= 0 ? Verdict.TENDENCY : Verdict.NONE;
        };
    }
}
