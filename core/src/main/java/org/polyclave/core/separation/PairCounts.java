package org.polyclave.core.separation;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Matrix;

/**
 * How many independent correlation groups strictly separate each pair of rows: how far apart they are. Counts stop at
 * {@value #MOST}. For R rows and G groups that takes O(R² · G / 64) time, by counters whose bits lie in {@value #PLANES} planes, and R²
 * bytes.
 */
public final class PairCounts {
    private static final int PLANES = 8;
    /** As many as a byte holds. */
    public static final int MOST = (1 << PLANES) - 1;

    private final byte[][] counts;

    private PairCounts(byte[][] counts) {
        this.counts = counts;
    }

    public static PairCounts of(Matrix matrix, SeparationContext context) {
        int n = matrix.rowCount();
        List<List<Column>> groups = PairVerdicts.groups(matrix, context, new StrictSeparation(matrix, context));
        byte[][] counts = new byte[n][n];
        IntStream.range(0, n).parallel().forEach(row -> count(row, groups, counts[row]));
        return new PairCounts(counts);
    }

    /** The same for a matrix in which only cells of one row are others. O(R · characters) time, and R² bytes. */
    public PairCounts withRow(Matrix changed, SeparationContext context, int row) {
        StrictSeparation pairs = new StrictSeparation(changed, context);
        byte[][] other = new byte[counts.length][];
        for (int i = 0; i < other.length; i++) {
            other[i] = counts[i].clone();
        }
        for (int i = 0; i < other.length; i++) {
            if (i != row) {
                byte groups = (byte) Math.min(MOST, pairs.groups(pairs.separating(row, i)));
                other[row][i] = groups;
                other[i][row] = groups;
            }
        }
        return new PairCounts(other);
    }

    private static void count(int row, List<List<Column>> groups, byte[] counts) {
        int words = PairVerdicts.words(counts.length);
        long[][] planes = new long[PLANES][words];
        long[] apart = new long[words];
        for (List<Column> group : groups) {
            Arrays.fill(apart, 0);
            for (Column column : group) {
                if (column.holds(row)) {
                    column.addApart(row, apart);
                }
            }
            for (int w = 0; w < words; w++) {
                add(planes, w, apart[w]);
            }
        }
        for (int i = 0; i < counts.length; i++) {
            int count = 0;
            for (int p = 0; p < PLANES; p++) {
                count |= (int) (planes[p][i / Long.SIZE] >>> (i % Long.SIZE) & 1) << p;
            }
            counts[i] = (byte) count;
        }
    }

    /** Adds one to the counters of some rows; those that are full stay so. */
    private static void add(long[][] planes, int word, long rows) {
        long full = -1;
        for (long[] plane : planes) {
            full &= plane[word];
        }
        long carry = rows & ~full;
        for (int p = 0; p < PLANES && carry != 0; p++) {
            long sum = planes[p][word] ^ carry;
            carry &= planes[p][word];
            planes[p][word] = sum;
        }
    }

    public int rows() {
        return counts.length;
    }

    public int groups(int a, int b) {
        return counts[a][b] & MOST;
    }
}
