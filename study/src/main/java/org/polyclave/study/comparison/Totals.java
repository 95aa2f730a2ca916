package org.polyclave.study.comparison;

import java.util.Collection;
import java.util.List;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixRow;

/** How many pairs of rows of different taxa are told apart how well. */
public record Totals(int pairs, int firm, int thin, int tendency, int none) {
    /** Pairs that nothing separates for sure. */
    public int open() {
        return tendency + none;
    }

    /** @param graveOnly only pairs of a dangerous and another row */
    public static Totals of(Matrix matrix, PairJudgement verdicts, Collection<Integer> rows, boolean graveOnly) {
        int firm = 0;
        int thin = 0;
        int tendency = 0;
        int none = 0;
        List<Integer> in = List.copyOf(rows);
        for (int i = 0; i < in.size(); i++) {
            for (int j = 0; j < i; j++) {
                if (counts(matrix.row(in.get(i)), matrix.row(in.get(j)), graveOnly)) {
                    switch (verdicts.verdict(in.get(i), in.get(j))) {
                        case FIRM -> firm++;
                        case THIN -> thin++;
                        case TENDENCY -> tendency++;
                        default -> none++;
                    }
                }
            }
        }
        return new Totals(firm + thin + tendency + none, firm, thin, tendency, none);
    }

    private static boolean counts(MatrixRow a, MatrixRow b, boolean graveOnly) {
        return a.name() != b.name()
                && (!graveOnly || a.hazard().isDangerous() != b.hazard().isDangerous());
    }
}
