package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;

/** A character of all rows that can be compared in it at one time, laid out to set a row against all others at once. */
abstract class Column {
    private final long[] rows;

    private Column(long[] rows) {
        this.rows = rows;
    }

    /** Columns of a character: none if it must not decide; else one, or where rows show it in different months one for each month. */
    static List<Column> of(Matrix matrix, SeparationContext context, StrictSeparation pairs, int character) {
        Set<List<Long>> seen = new LinkedHashSet<>();
        List<Column> columns = new ArrayList<>();
        if (!matrix.character(character).role().decides()) {
            return columns;
        }
        boolean alike = true;
        int first = matrix.rowCount() == 0 ? 0 : context.monthsOf(matrix.months(0, character));
        for (int i = 1; i < matrix.rowCount(); i++) {
            alike &= context.monthsOf(matrix.months(i, character)) == first;
        }
        for (int month = 0; month < (alike ? 1 : 12); month++) {
            long[] rows = new long[PairVerdicts.words(matrix.rowCount())];
            int wanted = alike ? -1 : 1 << month;
            int held = 0;
            for (int i = 0; i < matrix.rowCount(); i++) {
                if ((context.monthsOf(matrix.months(i, character)) & wanted) != 0 && pairs.isComparable(i, character)) {
                    add(rows, i);
                    held++;
                }
            }
            if (held > 1 && seen.add(Arrays.stream(rows).boxed().toList())) {
                columns.add(
                        matrix.character(character).type().isNumeric()
                                ? new Numbers(matrix, character, rows, held)
                                : new States(matrix, character, rows));
            }
        }
        return columns;
    }

    private static void add(long[] set, int row) {
        set[row / Long.SIZE] |= 1L << (row % Long.SIZE);
    }

    private static void addAll(long[] set, long[] others) {
        for (int w = 0; w < set.length; w++) {
            set[w] |= others[w];
        }
    }

    boolean holds(int row) {
        return (rows[row / Long.SIZE] & (1L << (row % Long.SIZE))) != 0;
    }

    /** What is made once, and only if somebody asks for it. */
    private static final class Lazy<T> {
        private final Supplier<T> make;
        private Optional<T> made = Optional.empty();

        Lazy(Supplier<T> make) {
            this.make = make;
        }

        synchronized T get() {
            made = made.or(() -> Optional.of(make.get()));
            return made.get();
        }
    }

    /** Adds the rows that are strictly separated from a row that it holds. */
    abstract void addApart(int row, long[] apart);

    /** Adds the rows that usually are, or are so far. */
    abstract void addTending(int row, long[] tending);

    /** Of each set of states that some row may show, the rows that cannot show any of them; the same for typical states. */
    private static final class States extends Column {
        private final int[] readable;
        private final int[] typical;
        private final Map<Integer, long[]> apart;
        private final Lazy<Map<Integer, long[]>> tending;

        States(Matrix matrix, int character, long[] rows) {
            super(rows);
            readable = new int[matrix.rowCount()];
            typical = new int[matrix.rowCount()];
            for (int i = 0; i < readable.length; i++) {
                if (holds(i)) {
                    Cell.Categorical cell = (Cell.Categorical) matrix.cell(i, character);
                    readable[i] = cell.readable();
                    typical[i] = Typical.states(cell);
                }
            }
            apart = disjoint(rows, readable);
            tending = new Lazy<>(() -> disjoint(rows, typical));
        }

        private static Map<Integer, long[]> disjoint(long[] rows, int[] states) {
            long[][] showing = new long[Integer.SIZE][];
            for (int i = 0; i < states.length; i++) {
                for (int bits = states[i]; bits != 0; bits &= bits - 1) {
                    int s = Integer.numberOfTrailingZeros(bits);
                    showing[s] = showing[s] == null ? new long[rows.length] : showing[s];
                    add(showing[s], i);
                }
            }
            Map<Integer, long[]> disjoint = new HashMap<>();
            for (int set : states) {
                disjoint.computeIfAbsent(set, k -> {
                    long[] others = rows.clone();
                    for (int bits = k; bits != 0; bits &= bits - 1) {
                        long[] same = showing[Integer.numberOfTrailingZeros(bits)];
                        for (int w = 0; w < others.length; w++) {
                            others[w] &= ~same[w];
                        }
                    }
                    return others;
                });
            }
            return disjoint;
        }

        @Override
        void addApart(int row, long[] set) {
            addAll(set, of(apart, readable[row]));
        }

        @Override
        void addTending(int row, long[] set) {
            addAll(set, of(tending.get(), typical[row]));
        }

        private static long[] of(Map<Integer, long[]> sets, int states) {
            return Objects.requireNonNull(sets.get(states));
        }
    }

    /** Rows by where their ranges begin and end. */
    private static final class Numbers extends Column {
        private final Ends expected;
        private final Lazy<Ends> usual;

        Numbers(Matrix matrix, int character, long[] rows, int held) {
            super(rows);
            double gap = matrix.character(character).gap();
            int[] ids = new int[held];
            ToleranceExtent[] spans = new ToleranceExtent[matrix.rowCount()];
            int k = 0;
            for (int i = 0; i < spans.length; i++) {
                if (holds(i)) {
                    spans[i] = ToleranceExtent.of((Cell.Numeric) matrix.cell(i, character));
                    ids[k++] = i;
                }
            }
            double[] least = new double[spans.length];
            double[] low = new double[spans.length];
            double[] high = new double[spans.length];
            double[] most = new double[spans.length];
            for (int i : ids) {
                least[i] = spans[i].least();
                low[i] = spans[i].low();
                high[i] = spans[i].high();
                most[i] = spans[i].most();
            }
            expected = new Ends(ids, least, most, gap, rows.length);
            usual = new Lazy<>(() -> new Ends(ids, low, high, gap, rows.length));
        }

        @Override
        void addApart(int row, long[] apart) {
            expected.add(row, apart);
        }

        @Override
        void addTending(int row, long[] tending) {
            usual.get().add(row, tending);
        }
    }

    /** The rows whose ranges begin beyond the end of one's own, or end before it begins, block by block. */
    private static final class Ends {
        private static final int BLOCK = 32;

        private final double[] from;
        private final double[] to;
        private final double gap;
        private final int[] byFrom;
        private final int[] byTo;
        /** Of each block in order of beginnings, the rows from it on; in order of ends, the rows before it. */
        private final long[][] beginning;

        private final long[][] ended;

        Ends(int[] ids, double[] from, double[] to, double gap, int words) {
            this.from = from;
            this.to = to;
            this.gap = gap;
            byFrom = sorted(ids, from);
            byTo = sorted(ids, to);
            int blocks = (ids.length + BLOCK - 1) / BLOCK;
            beginning = new long[blocks + 1][words];
            ended = new long[blocks + 1][words];
            for (int b = blocks - 1; b >= 0; b--) {
                beginning[b] = beginning[b + 1].clone();
                for (int k = b * BLOCK; k < Math.min(ids.length, (b + 1) * BLOCK); k++) {
                    Column.add(beginning[b], byFrom[k]);
                }
            }
            for (int b = 0; b < blocks; b++) {
                ended[b + 1] = ended[b].clone();
                for (int k = b * BLOCK; k < Math.min(ids.length, (b + 1) * BLOCK); k++) {
                    Column.add(ended[b + 1], byTo[k]);
                }
            }
        }

        private static int[] sorted(int[] ids, double[] by) {
            return Arrays.stream(ids)
                    .boxed()
                    .sorted((a, b) -> Double.compare(by[a], by[b]))
                    .mapToInt(i -> i)
                    .toArray();
        }

        void add(int row, long[] set) {
            int after = first(byFrom, k -> from[k] - to[row] > gap);
            int block = (after + BLOCK - 1) / BLOCK;
            addAll(set, beginning[block]);
            for (int k = after; k < Math.min(byFrom.length, block * BLOCK); k++) {
                Column.add(set, byFrom[k]);
            }
            int before = first(byTo, k -> !(from[row] - to[k] > gap));
            block = before / BLOCK;
            addAll(set, ended[block]);
            for (int k = block * BLOCK; k < before; k++) {
                Column.add(set, byTo[k]);
            }
        }

        private interface Beyond {
            boolean test(int row);
        }

        /** Place of the first row for which it holds; it holds for all after. */
        private static int first(int[] rows, Beyond beyond) {
            int low = 0;
            int high = rows.length;
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (beyond.test(rows[middle])) {
                    high = middle;
                } else {
                    low = middle + 1;
                }
            }
            return low;
        }
    }
}
