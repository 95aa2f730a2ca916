package org.polyclave.core.key;

import java.util.Arrays;
import org.polyclave.core.key.KeyProblem.Pattern;

/**
 * A lower bound of the steps that the specimens of a position must still take: classes that cannot share an end need ends of
 * their own, so Huffman's code (1952), of as many letters as couplets may have leads, is a bound over them, and every other specimen takes one
 * step more. A couplet that goes on has been counted, so a step less is certain there. Of the sets of
 * classes that exclude one another, one is taken greedily. O(classes² / 64) time.
 */
final class LeastSteps {
    /** Beyond so many classes it takes too long to find out which exclude one another, and nothing is bounded. */
    private static final int MOST = 512;

    private final KeyProblem problem;
    /** By class, the classes that cannot share an end with it; empty where nothing is bounded. */
    private final long[][] apart;

    LeastSteps(KeyProblem problem) {
        this.problem = problem;
        int n = problem.classCount;
        apart = n > MOST ? new long[0][] : new long[n][(n + 63) / 64];
        for (int a = 0; a < apart.length; a++) {
            for (int b = 0; b < a; b++) {
                if (problem.nameOf[a] != problem.nameOf[b] && excludeOneAnother(a, b)) {
                    apart[a][b / 64] |= 1L << b;
                    apart[b][a / 64] |= 1L << a;
                }
            }
        }
    }

    private boolean excludeOneAnother(int a, int b) {
        boolean dangerous = problem.isDangerous(a) && problem.isDangerous(b);
        for (int c = 0; c < problem.patterns.length; c++) {
            // Where only dangers are left nobody handles them to know which it is.
            boolean asked = problem.matrix.character(c).role().decides()
                    && !(dangerous && problem.matrix.character(c).isHandling());
            if (asked && areDisjoint(c, problem.pattern(c, a), problem.pattern(c, b))) {
                return true;
            }
        }
        return false;
    }

    private boolean areDisjoint(int c, Pattern a, Pattern b) {
        return a.known()
                && b.known()
                && (problem.matrix.character(c).type().isNumeric()
                        ? Math.max(a.min(), b.min()) > Math.min(a.max(), b.max())
                        : (a.mask() & b.mask()) == 0);
    }

    /** Steps times mass; 0 where one end may be enough. */
    double of(Position position) {
        return of(position.classes, position.mass, position.size(), position.open >= 0);
    }

    /** The same for what is in play on a lead. */
    double of(Position position, Split split, boolean first) {
        int[] classes = new int[position.size()];
        double[] mass = new double[classes.length];
        int n = 0;
        for (int k = 0; apart.length > 0 && k < classes.length; k++) {
            if (position.enters(k, split, first)) {
                classes[n] = position.classes[k];
                mass[n++] = position.mass[k] * position.share(k, split, first);
            }
        }
        return of(classes, mass, n, position.mayGoOn(split, first));
    }

    private double of(int[] classes, double[] mass, int size, boolean goesOn) {
        if (apart.length == 0 || size < 2) {
            return 0;
        }
        long[] left = new long[apart[0].length];
        Arrays.fill(left, -1L);
        double[] ends = new double[size];
        int n = 0;
        double rest = 0;
        for (int k = 0; k < size; k++) {
            int specimens = classes[k];
            if ((left[specimens / 64] & (1L << specimens)) == 0) {
                rest += mass[k];
                continue;
            }
            for (int word = 0; word < left.length; word++) {
                left[word] &= apart[specimens][word];
            }
            ends[n++] = mass[k];
        }
        if (n < 2) {
            return 0;
        }
        double steps = huffman(ends, n, problem.mostLeads) + rest;
        return goesOn ? Math.max(0, steps - Arrays.stream(mass, 0, size).sum()) : steps;
    }

    /**
     * Sum of all joined weights; sorted once, what was joined comes out in order by itself (van Leeuwen 1976). The first are joined by
     * fewer where the number does not come out even.
     */
    private static double huffman(double[] weights, int n, int leads) {
        Arrays.sort(weights, 0, n);
        double[] joined = new double[n];
        int next = 0;
        int nextJoined = 0;
        double sum = 0;
        int left = n;
        int parts = 2 + (n - 2) % (leads - 1);
        for (int made = 0; left > 1; made++) {
            double all = 0;
            for (int part = 0; part < parts; part++) {
                boolean fromJoined = next >= n || (nextJoined < made && joined[nextJoined] <= weights[next]);
                all += fromJoined ? joined[nextJoined++] : weights[next++];
            }
            joined[made] = all;
            sum += all;
            left -= parts - 1;
            parts = leads;
        }
        return sum;
    }
}
