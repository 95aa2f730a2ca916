package org.polyclave.core.key;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.testkit.SyntheticMatrix;

/** What occurs in a lead, against specimens that are drawn one by one and walked through the key. */
final class OccurringTest {
    private static final int SPECIMENS = 1500;
    private static final double ABSENT = Double.NaN;

    /** What specimens showed, by statement of the lead that they followed. */
    private final IdentityHashMap<Key.Statement, TreeSet<Double>> seen = new IdentityHashMap<>();

    private final Random random = new Random(7);

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 40);
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void aLeadNamesWhatItsSpecimensShowAndNothingElse(long seed) {
        Matrix matrix = new SyntheticMatrix(7, 6, 4, 0.3, 0.08, 0.4, 0, false).generate(seed);
        Key key = ((KeyOutcome.Generated)
                        new KeyGenerator().generate(matrix, KeyOptions.DEFAULT.withNodeBudget(400), CancelSignal.NEVER))
                .result()
                .key();
        Occurring occurring = Occurring.of(matrix, key);
        Map<Integer, Key.Couplet> couplets = new HashMap<>();
        key.couplets().forEach(c -> couplets.put(c.number(), c));
        for (int row = 0; row < matrix.rowCount(); row++) {
            for (int n = 0; n < SPECIMENS && !key.couplets().isEmpty(); n++) {
                walk(specimen(matrix, row), key.couplets().get(0), couplets);
            }
        }
        seen.forEach((statement, values) -> {
            Atoms named = occurring.in(statement).atoms().orElseThrow();
            if (named instanceof Atoms.States states) {
                int shown = values.stream().mapToInt(v -> 1 << v.intValue()).reduce(0, (a, b) -> a | b);
                assertThat(states.mask()).isEqualTo(shown);
            } else {
                Atoms.Interval interval = (Atoms.Interval) named;
                double half = matrix.character(statement.character()).margin();
                assertThat(values.first()).isGreaterThanOrEqualTo(interval.min() - half);
                assertThat(values.last()).isLessThanOrEqualTo(interval.max() + half);
                // Both ends are drawn: a lead that named more than occurs would stick out.
                double width = interval.max() - interval.min();
                assertThat(values.first() - interval.min()).isLessThanOrEqualTo(half + 0.02 * width);
                assertThat(interval.max() - values.last()).isLessThanOrEqualTo(half + 0.02 * width);
            }
        });
        assertThat(seen).isNotEmpty();
    }

    /** One value a character: a state, or a number that is often an end of its range; absent where nothing is known. */
    private double[] specimen(Matrix matrix, int row) {
        double[] values = new double[matrix.characterCount()];
        for (int c = 0; c < values.length; c++) {
            Cell cell = matrix.cell(row, c);
            values[c] = ABSENT;
            if (cell instanceof Cell.Categorical shown) {
                List<Integer> states = LongStream.range(0, 32)
                        .filter(s -> (shown.readable() & (1 << s)) != 0)
                        .mapToObj(s -> (int) s)
                        .toList();
                values[c] = states.get(random.nextInt(states.size()));
            } else if (cell instanceof Cell.Numeric range) {
                double at = random.nextInt(4) == 0 ? random.nextInt(2) : random.nextDouble();
                values[c] = range.min() + at * (range.max() - range.min());
                boolean whole = matrix.character(c).type() == CharacterType.COUNT;
                values[c] = whole ? Math.rint(values[c]) : values[c];
            }
        }
        return values;
    }

    private void walk(double[] specimen, Key.Couplet couplet, Map<Integer, Key.Couplet> couplets) {
        int unknown = random.nextInt(couplet.leads().size());
        for (int l = 0; l < couplet.leads().size(); l++) {
            Key.Lead lead = couplet.leads().get(l);
            Key.Statement deciding = lead.statements().get(0);
            double value = specimen[deciding.character()];
            boolean follows = Double.isNaN(value) ? l == unknown : accepts(deciding.atoms(), value);
            if (follows) {
                for (Key.Statement statement : lead.statements()) {
                    double shown = specimen[statement.character()];
                    if (!Double.isNaN(shown) && accepts(statement.atoms(), shown)) {
                        seen.computeIfAbsent(statement, s -> new TreeSet<>()).add(shown);
                    }
                }
                if (lead.to() instanceof Key.ToCouplet next) {
                    walk(specimen, Objects.requireNonNull(couplets.get(next.number())), couplets);
                }
            }
        }
    }

    private static boolean accepts(Atoms atoms, double value) {
        return atoms instanceof Atoms.States states
                ? (states.mask() & (1 << (int) value)) != 0
                : ((Atoms.Interval) atoms).contains(value);
    }
}
