package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Matrix;

/**
 * How well every pair of rows is told apart in one context: what {@link StrictSeparation#verdict} says, for all pairs at once.
 *
 * <p>Per character and state the rows that may show it are one bit set, so that a row is set against all others by a few
 * operations on words; numbers by sorted ends of ranges. Two saturating bits a pair count groups ("one or more", "two or
 * more"), a third tells tendencies; a row that two groups tell from all others is done. For R rows and C characters building
 * takes O(R² · C / 64) time at most and O(R²) bits, an edited cell O(R · C).
 */
public final class PairVerdicts {
    private final StrictSeparation pairs;
    private final int n;
    private final int words;
    /** Bits of all pairs, row after row: told apart by one group or more, by two or more, usually. */
    private final long[] once;

    private final long[] twice;
    private final long[] usually;

    private PairVerdicts(StrictSeparation pairs, int n, long[] once, long[] twice, long[] usually) {
        this.pairs = pairs;
        this.n = n;
        this.words = words(n);
        this.once = once;
        this.twice = twice;
        this.usually = usually;
    }

    public static PairVerdicts of(Matrix matrix, SeparationContext context) {
        StrictSeparation pairs = new StrictSeparation(matrix, context);
        int n = matrix.rowCount();
        int words = words(n);
        PairVerdicts all = new PairVerdicts(pairs, n, new long[n * words], new long[n * words], new long[n * words]);
        List<List<Column>> groups = groups(matrix, context, pairs);
        IntStream.range(0, n).parallel().forEach(row -> all.fill(row, groups));
        return all;
    }

    public static int words(int rows) {
        return (rows + Long.SIZE - 1) / Long.SIZE;
    }

    /** Columns by correlation group; a character whose rows show it in different months has one for each month. */
    static List<List<Column>> groups(Matrix matrix, SeparationContext context, StrictSeparation pairs) {
        TreeMap<Integer, List<Integer>> characters = new TreeMap<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            if (context.isUsable(c)) {
                characters
                        .computeIfAbsent(matrix.character(c).group(), g -> new ArrayList<>())
                        .add(c);
            }
        }
        return characters.values().stream()
                .parallel()
                .map(group -> group.stream()
                        .flatMap(c -> Column.of(matrix, context, pairs, c).stream())
                        .toList())
                .toList();
    }

    private void fill(int row, List<List<Column>> groups) {
        int at = row * words;
        long[] apart = new long[words];
        for (List<Column> group : groups) {
            Arrays.fill(apart, 0);
            boolean any = false;
            for (Column column : group) {
                if (column.holds(row)) {
                    column.addApart(row, apart);
                    any = true;
                }
            }
            for (int w = 0; any && w < words; w++) {
                twice[at + w] |= once[at + w] & apart[w];
                once[at + w] |= apart[w];
            }
            // More than two groups make no difference: mostly the first few decide.
            if (any && isAll(twice, at)) {
                return;
            }
        }
        // Tendencies matter only where nothing better tells a row apart.
        if (!isAll(once, at)) {
            long[] tending = new long[words];
            groups.forEach(g -> g.stream().filter(c -> c.holds(row)).forEach(c -> c.addTending(row, tending)));
            System.arraycopy(tending, 0, usually, at, words);
        }
    }

    /** Whether all rows but one's own are in a set. */
    private boolean isAll(long[] bits, int at) {
        int set = 0;
        for (int w = 0; w < words; w++) {
            set += Long.bitCount(bits[at + w]);
        }
        return set == n - 1;
    }

    /** The same for a matrix in which only cells of one row are others. */
    public PairVerdicts withRow(Matrix changed, int row) {
        PairVerdicts other =
                new PairVerdicts(pairs.withRow(changed, row), n, once.clone(), twice.clone(), usually.clone());
        for (int i = 0; i < n; i++) {
            if (i != row) {
                Verdict verdict = other.pairs.verdict(row, i);
                other.set(row, i, verdict);
                other.set(i, row, verdict);
            }
        }
        return other;
    }

    private void set(int a, int b, Verdict verdict) {
        put(once, a, b, verdict.compareTo(Verdict.THIN) >= 0);
        put(twice, a, b, verdict == Verdict.FIRM);
        put(usually, a, b, verdict == Verdict.TENDENCY);
    }

    private void put(long[] bits, int a, int b, boolean on) {
        int at = a * words + b / Long.SIZE;
        long bit = 1L << (b % Long.SIZE);
        bits[at] = on ? bits[at] | bit : bits[at] & ~bit;
    }

    private boolean has(long[] bits, int a, int b) {
        return (bits[a * words + b / Long.SIZE] & (1L << (b % Long.SIZE))) != 0;
    }

    public int rows() {
        return n;
    }

    public Verdict verdict(int a, int b) {
        return has(twice, a, b)
                ? Verdict.FIRM
                : has(once, a, b) ? Verdict.THIN : has(usually, a, b) ? Verdict.TENDENCY : Verdict.NONE;
    }

    /** How many pairs have a verdict. */
    public long count(Verdict wanted) {
        return IntStream.range(0, n)
                .parallel()
                .mapToLong(a -> IntStream.range(0, a)
                        .filter(b -> verdict(a, b) == wanted)
                        .count())
                .sum();
    }
}
