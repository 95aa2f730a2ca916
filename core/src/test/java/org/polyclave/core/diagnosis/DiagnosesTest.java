package org.polyclave.core.diagnosis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import java.util.function.ToDoubleFunction;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.matrix.RangeDistribution;
import org.polyclave.core.matrix.RecordedStates;
import org.polyclave.core.run.Completion;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.Strength;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.core.testkit.SyntheticMatrix;

/** Diagnoses against every set of characters, and strengths against what they promise. */
class DiagnosesTest {
    static LongStream seeds() {
        return LongStream.rangeClosed(1, 80);
    }

    /** Several characters a group, of different effort. */
    private static Matrix matrix(Random random, int rows, int count) {
        Matrix plain = new SyntheticMatrix(rows, count, 3, 0.3, 0.15, 0.3, 0.1, false).generate(random.nextLong());
        return SyntheticMatrix.withCharacters(
                plain,
                c -> new MatrixCharacter(
                        c.id(),
                        c.type(),
                        c.stateCount(),
                        c.appliesWhen(),
                        c.organ(),
                        c.method(),
                        random.nextInt(1 + 2 * count / 3),
                        0.5 + random.nextInt(5),
                        0,
                        random.nextInt(3) * 0.1,
                        0xFFF,
                        false,
                        true));
    }

    /** Whether a set tells a row from every rival by as many groups as there are, up to k; 0: up to two where one is dangerous. */
    private static boolean tells(Matrix matrix, int row, int set, int k) {
        StrictSeparation separation = new StrictSeparation(matrix);
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (matrix.row(i).name() == matrix.row(row).name()) {
                continue;
            }
            List<Integer> all = separation.separating(row, i);
            List<Integer> used = all.stream().filter(c -> (set >>> c & 1) == 1).toList();
            boolean dangerous =
                    matrix.row(row).hazard() == Hazard.SERIOUS || matrix.row(i).hazard() == Hazard.SERIOUS;
            int wanted = k > 0 ? k : dangerous ? 2 : 1;
            if (separation.groups(used) < Math.min(wanted, separation.groups(all))) {
                return false;
            }
        }
        return true;
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void noOtherSetThatTellsARowApartIsCheaper(long seed) {
        Random random = new Random(seed);
        Matrix matrix = matrix(random, 2 + random.nextInt(9), 1 + random.nextInt(9));
        int row = random.nextInt(matrix.rowCount());
        int k = random.nextInt(3);
        Diagnoses diagnoses = new Diagnoses(matrix, SeparationContext.EVERYTHING, Observer.NOVICE, 100_000);
        double least = Double.POSITIVE_INFINITY;
        for (int set = 0; set < 1 << matrix.characterCount(); set++) {
            if (tells(matrix, row, set, k)) {
                double cost = 0;
                for (int c = 0; c < matrix.characterCount(); c++) {
                    cost += (set >>> c & 1) == 1 ? diagnoses.cost(row, c) : 0;
                }
                least = Math.min(least, cost);
            }
        }
        Diagnosis found = k == 0 ? diagnoses.ofSafely(row) : diagnoses.of(row, k);
        int chosen = found.characters().stream().mapToInt(c -> 1 << c).sum();
        assertThat(tells(matrix, row, chosen, k)).isTrue();
        assertThat(found.cost()).isCloseTo(least, within(1e-9));
        assertThat(found.completion()).isEqualTo(Completion.OPTIMAL);
        assertThat(found.bound()).isCloseTo(least, within(1e-9));

        // With hardly any search the best so far still tells it apart, and its bound holds.
        Diagnoses impatient = new Diagnoses(matrix, SeparationContext.EVERYTHING, Observer.NOVICE, 1);
        Diagnosis hasty = k == 0 ? impatient.ofSafely(row) : impatient.of(row, k);
        int first = hasty.characters().stream().mapToInt(c -> 1 << c).sum();
        assertThat(tells(matrix, row, first, k)).isTrue();
        assertThat(hasty.bound()).isLessThanOrEqualTo(least + 1e-9);
        assertThat(hasty.shortfalls()).isEqualTo(found.shortfalls());
    }

    private static Matrix pair(double[] first, double[] second, double misreading) {
        MatrixCharacter c = new MatrixCharacter(
                "c", CharacterType.STATES, first.length, List.of(), 0, 0, 0, 1, 0, misreading, 0xFFF, false, true);
        List<MatrixRow> rows =
                List.of(new MatrixRow("a", 0, 0, 1, Hazard.NONE_KNOWN), new MatrixRow("b", 1, 1, 1, Hazard.NONE_KNOWN));
        return Matrix.of(rows, List.of(c), new Cell[][] {{cell(first)}, {cell(second)}});
    }

    private static Cell cell(double[] shares) {
        int support = 0;
        for (int s = 0; s < shares.length; s++) {
            support |= shares[s] > 0 ? 1 << s : 0;
        }
        return new Cell.Categorical(support, support, shares);
    }

    @Test
    void strengthFollowsTheFrequenciesAndTheMisreading() {
        double[] one = {1, 0};
        double[] other = {0, 1};
        // p = (0.95, 0.05), q = (0.05, 0.95), mixed with 0.02 of (0.5, 0.5): Σ√(pq) = 2·√(0.941 · 0.059).
        assertThat(new Strength(pair(one, other, 0.05), Observer.TRAINED).bits(0, 1, 0))
                .isCloseTo(-Math.log(2 * Math.sqrt(0.941 * 0.059)) / Math.log(2), within(1e-12));
        assertThat(new Strength(pair(one, one, 0.05), Observer.TRAINED).bits(0, 1, 0))
                .isZero();
        double often = new Strength(pair(one, other, 0.2), Observer.TRAINED).bits(0, 1, 0);
        double usually = new Strength(pair(new double[] {0.8, 0.2}, other, 0.05), Observer.TRAINED).bits(0, 1, 0);
        double seldom = new Strength(pair(one, other, 0.05), Observer.TRAINED).bits(0, 1, 0);
        assertThat(often).isPositive().isLessThan(seldom);
        assertThat(usually).isPositive().isLessThan(seldom);
    }

    /** A judge who takes the likelier row errs at even odds in at most ½ · 2^−bits of cases: simulated for all pairs of rows. */
    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void strengthBoundsTheErrorOfTheBestJudge(long seed) {
        Random random = new Random(seed);
        int n = 2 + random.nextInt(4);
        Matrix matrix = pair(shares(random, n), shares(random, n), 0.02 + 0.2 * random.nextDouble());
        Strength strength = new Strength(matrix, Observer.TRAINED);
        double bits = strength.bits(0, 1, 0);
        double[] p = RecordedStates.of(
                matrix.character(0),
                (Cell.Categorical) matrix.cell(0, 0),
                matrix.character(0).misreading().rate(Observer.TRAINED, 0));
        double[] q = RecordedStates.of(
                matrix.character(0),
                (Cell.Categorical) matrix.cell(1, 0),
                matrix.character(0).misreading().rate(Observer.TRAINED, 1));
        double error = 0;
        for (int s = 0; s < n; s++) {
            error += Math.min(p[s], q[s]) / 2;
        }
        // Mixing in blunders only weakens: what is promised is a bound for those who blunder, too.
        assertThat(error).isLessThanOrEqualTo(0.5 * Math.pow(2, -bits) + 1e-12);
    }

    private static double[] shares(Random random, int n) {
        double[] shares = new double[n];
        double sum = 0;
        for (int s = 0; s < n; s++) {
            shares[s] = random.nextInt(3) == 0 ? 0 : random.nextDouble();
            sum += shares[s];
        }
        if (sum == 0) {
            shares[0] = sum = 1;
        }
        for (int s = 0; s < n; s++) {
            shares[s] /= sum;
        }
        return shares;
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void oneRowAgainstAllIsAsStrongAsPairByPair(long seed) {
        Random random = new Random(seed);
        Matrix matrix = matrix(random, 2 + random.nextInt(12), 1 + random.nextInt(9));
        SeparationContext context = SeparationContext.EVERYTHING;
        Strength strength = new Strength(matrix, Observer.NOVICE);
        StrictSeparation separation = new StrictSeparation(matrix, context);
        double[] all = strength.bitsAgainstAll(0, context);
        assertThat(all[0]).isZero();
        for (int i = 1; i < all.length; i++) {
            List<Integer> seen = new ArrayList<>();
            for (int c = 0; c < matrix.characterCount(); c++) {
                if (separation.difference(0, i, c).isSeen()) {
                    seen.add(c);
                }
            }
            assertThat(all[i]).isCloseTo(strength.bits(0, i, seen), within(1e-9));
        }
    }

    @Test
    void rangesAreAsStrongAsTheyAreApart() {
        MatrixCharacter size = MatrixCharacter.of("size", CharacterType.LENGTH, 0, 0);
        List<MatrixRow> rows = new ArrayList<>();
        Cell[][] cells = new Cell[4][1];
        double[][] ranges = {{0, 10}, {0, 10}, {5, 15}, {20, 30}};
        for (int i = 0; i < 4; i++) {
            rows.add(new MatrixRow("r" + i, i, i, 1, Hazard.NONE_KNOWN));
            cells[i][0] = Cell.Numeric.range(ranges[i][0], ranges[i][1]);
        }
        Strength strength = new Strength(Matrix.of(rows, List.of(size), cells), Observer.TRAINED);
        assertThat(strength.bits(0, 1, 0)).isCloseTo(0, within(1e-9));
        // Half of either overlaps: Σ√(pq) = 0.5 but for blunders, which make it more.
        assertThat(strength.bits(0, 2, 0)).isBetween(0.7, 1.0);
        assertThat(strength.bits(0, 3, 0)).isBetween(2.0, 6.0);
        assertThat(strength.bits(2, 0, 0)).isEqualTo(strength.bits(0, 2, 0));
    }

    /** By the definition: between the ends of both, and at them, with the blunders of all rows together. */
    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void rangesAreAsStrongAsTheirDefinitionSays(long seed) {
        Random random = new Random(seed);
        int n = 2 + random.nextInt(5);
        MatrixCharacter size =
                MatrixCharacter.of("size", random.nextBoolean() ? CharacterType.LENGTH : CharacterType.COUNT, 0, 0);
        List<MatrixRow> rows = new ArrayList<>();
        Cell[][] cells = new Cell[n][1];
        for (int i = 0; i < n; i++) {
            rows.add(new MatrixRow("r" + i, i, i, 1, Hazard.NONE_KNOWN));
            double[] ends = random.doubles(4, 0, 9).map(Math::rint).sorted().toArray();
            cells[i][0] = new Cell.Numeric(ends[0], ends[1], ends[2], ends[3]);
        }
        Matrix matrix = Matrix.of(rows, List.of(size), cells);
        Distributions distributions = new Distributions(matrix, RangeDistribution.Tails.KEPT);
        RangeDistribution all = distributions.range(0, Cell.UNKNOWN);
        Strength strength = new Strength(matrix, Observer.TRAINED);
        for (int b = 1; b < n; b++) {
            RangeDistribution p = distributions.range(0, cells[0][0]);
            RangeDistribution q = distributions.range(0, cells[b][0]);
            TreeSet<Double> places = new TreeSet<>();
            for (RangeDistribution one : List.of(p, q)) {
                for (int i = 0; i < one.ends(); i++) {
                    places.add(one.end(i));
                }
            }
            places.add(Double.POSITIVE_INFINITY);
            double affinity = 0;
            double last = Double.NEGATIVE_INFINITY;
            for (double x : places) {
                double from = last;
                affinity += root(p, q, all, d -> d.share(from, x) - d.within(x, x));
                affinity += root(p, q, all, d -> d.within(x, x));
                last = x;
            }
            assertThat(strength.bits(0, b, 0)).isCloseTo(Math.max(0, -Math.log(affinity) / Math.log(2)), within(1e-9));
        }
    }

    private static double root(
            RangeDistribution p, RangeDistribution q, RangeDistribution all, ToDoubleFunction<RangeDistribution> mass) {
        double blunder = 0.02 * mass.applyAsDouble(all);
        return Math.sqrt((0.98 * mass.applyAsDouble(p) + blunder) * (0.98 * mass.applyAsDouble(q) + blunder));
    }
}
