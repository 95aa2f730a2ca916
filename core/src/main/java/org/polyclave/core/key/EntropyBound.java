package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.separation.StrictSeparation;

/**
 * A lower bound on the expected number of couplets of any key: the information that its terminals must carry, divided by what a couplet
 * of so many leads can give (Shannon 1948). Rows that nothing can part, or that need not be parted, may share a terminal; chains of such rows form
 * groups, and a terminal tells at least the group. Bits = entropy of the groups' weights. O(rows² · characters).
 */
final class EntropyBound {
    private EntropyBound() {}

    static double of(Matrix matrix, boolean evenWeights, int mostLeads) {
        int n = matrix.rowCount();
        int[] group = groups(matrix);
        double[] shares = matrix.shares(evenWeights);
        double[] weight = new double[n];
        for (int i = 0; i < n; i++) {
            weight[group[i]] += shares[i];
        }
        double bits = 0;
        for (double w : weight) {
            if (w > 0) {
                bits -= w * Math.log(w) / Math.log(2);
            }
        }
        return Math.max(0, bits) / (Math.log(mostLeads) / Math.log(2));
    }

    private static int[] groups(Matrix matrix) {
        int n = matrix.rowCount();
        StrictSeparation separation = new StrictSeparation(matrix);
        int[] group = new int[n];
        java.util.Arrays.fill(group, -1);
        for (int i = 0; i < n; i++) {
            if (group[i] >= 0) {
                continue;
            }
            List<Integer> open = new ArrayList<>(List.of(i));
            group[i] = i;
            while (!open.isEmpty()) {
                int a = open.remove(open.size() - 1);
                for (int b = i + 1; b < n; b++) {
                    boolean together = matrix.sharesName(a, b) || !separation.separates(a, b);
                    if (group[b] < 0 && together) {
                        group[b] = i;
                        open.add(b);
                    }
                }
            }
        }
        return group;
    }
}
