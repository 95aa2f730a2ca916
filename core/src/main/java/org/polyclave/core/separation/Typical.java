package org.polyclave.core.separation;

import org.polyclave.core.matrix.Cell;

/** What a row usually shows: the fewest states that three quarters of its individuals show, and those as frequent as the last. */
final class Typical {
    private static final double USUALLY = 0.75;
    private static final double ROUNDING = 1e-9;

    private Typical() {}

    static int states(Cell.Categorical cell) {
        if (Integer.bitCount(cell.support()) == 1) {
            return cell.support();
        }
        double[] shares = cell.shares();
        int states = 0;
        double covered = 0;
        while (covered < USUALLY - ROUNDING) {
            double most = 0;
            for (int s = 0; s < shares.length; s++) {
                most = (states & (1 << s)) == 0 ? Math.max(most, shares[s]) : most;
            }
            if (most <= 0) {
                break;
            }
            for (int s = 0; s < shares.length; s++) {
                if ((states & (1 << s)) == 0 && shares[s] >= most - ROUNDING) {
                    states |= 1 << s;
                    covered += shares[s];
                }
            }
        }
        return states;
    }
}
