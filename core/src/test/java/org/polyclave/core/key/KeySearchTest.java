package org.polyclave.core.key;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;
import org.polyclave.core.testkit.KeyOracle;
import org.polyclave.core.testkit.SyntheticMatrix;

/** The cheapest trees, against all trees there are. */
class KeySearchTest {
    private static final int GIVEN_UP = 10_000;

    /** A tree with its cost, and what none costs less than. */
    private record Searched(KeyTree tree, double cost, double bound) {
        boolean isCheapest() {
            return cost - bound < 1e-9;
        }
    }

    private static Searched searched(KeyProblem problem, SplitCost cost, int nodes) {
        KeySearch search = new KeySearch(
                problem,
                cost,
                new TreeCost(problem),
                new LeastSteps(problem),
                CancelSignal.NEVER,
                Progress.UNSEEN,
                nodes,
                new SetQuestions(problem, List.of()));
        KeySearch.Found found = search.run(GIVEN_UP).orElseThrow();
        return new Searched(found.tree(), found.cost(), search.bound());
    }

    private static Searched fewest(Matrix matrix, int nodes) {
        return fewest(matrix, nodes, 2);
    }

    private static Searched fewest(Matrix matrix, int nodes, int leads) {
        KeyProblem problem = new KeyProblem(matrix, true, leads);
        return searched(problem, new SplitCost(problem, KeyObjective.FEWEST, KeyOptions.DEFAULT), nodes);
    }

    @Test
    void theFewestStepsAreThoseOfAllKeys() {
        for (long seed = 1; seed <= 2_000; seed++) {
            int rows = 3 + (int) (seed % 3);
            int characters = rows < 5 && seed % 2 == 0 ? 4 : 3;
            Matrix matrix = new SyntheticMatrix(rows, characters, 3, 0.35, 0, 0, 0, seed % 3 == 0).generate(seed);
            Searched found = fewest(matrix, 20_000);
            assertThat(found.isCheapest()).as("seed %d", seed).isTrue();
            assertThat(found.cost()).as("seed %d", seed).isCloseTo(new KeyOracle(matrix, 2).leastSteps(), within(1e-9));
        }
    }

    @Test
    void theFewestStepsOfSeveralLeadsAreThoseOfAllKeys() {
        int shorter = 0;
        for (long seed = 1; seed <= 300; seed++) {
            int leads = 3 + (int) (seed % 2);
            Matrix matrix = new SyntheticMatrix(3 + (int) (seed % 3), 3, 4, 0.3, 0, 0, 0, false).generate(seed);
            Searched found = fewest(matrix, 20_000, leads);
            assertThat(found.isCheapest()).as("seed %d", seed).isTrue();
            double least = new KeyOracle(matrix, leads).leastSteps();
            assertThat(found.cost()).as("seed %d", seed).isCloseTo(least, within(1e-9));
            shorter += found.cost() < fewest(matrix, 20_000).cost() - 1e-9 ? 1 : 0;
        }
        assertThat(shorter).isGreaterThan(100);
    }

    /** Numbers, counts, unknown and inapplicable cells, dependent characters, sexes, weights, dangers, handling, months. */
    private static Matrix mixed(long seed) {
        Random random = new Random(seed);
        int rows = 3 + (int) (seed % 2);
        Matrix plain = new SyntheticMatrix(rows, 3, 3, 0.3, 0.1, 0.4, 0.3, false).generate(seed);
        List<MatrixRow> named = new ArrayList<>();
        for (MatrixRow row : plain.rows()) {
            int name = named.isEmpty() || random.nextInt(4) > 0
                    ? named.size()
                    : named.get(named.size() - 1).name();
            Hazard hazard = random.nextInt(3) == 0 ? Hazard.SERIOUS : Hazard.NONE_KNOWN;
            named.add(new MatrixRow(row.id(), name, random.nextInt(2), 1 + random.nextInt(4), hazard));
        }
        return SyntheticMatrix.withCharacters(
                Matrix.of(named, plain.characters(), SyntheticMatrix.cells(plain)),
                c -> random.nextInt(4) == 0 ? c.by(Handling.CRUSH) : c.withUncertainty(random.nextInt(3)));
    }

    @ParameterizedTest
    @EnumSource
    void noTreeAtAllIsCheaper(KeyObjective objective) {
        int solved = 0;
        int known = 0;
        for (long seed = 1; seed <= 100; seed++) {
            KeyProblem problem = new KeyProblem(mixed(seed), seed % 2 == 0, 2 + (int) (seed % 7 / 5));
            int months = seed % 3 == 0 ? 0b111 : MatrixCharacter.ALL_MONTHS;
            SplitCost cost = new SplitCost(
                    problem, objective, KeyOptions.DEFAULT.inMonths(months).withHazardsFirst(seed % 5 < 2));
            TreeCost treeCost = new TreeCost(problem);
            AllTrees all = new AllTrees(problem, cost, treeCost);
            double least = all.least(Position.start(problem));
            if (all.tried > AllTrees.MOST) {
                continue;
            }
            known++;
            Searched found = searched(problem, cost, 2_000);
            assertThat(found.bound()).as("seed %d", seed).isLessThanOrEqualTo(least + 1e-9);
            assertThat(found.cost()).as("seed %d", seed).isGreaterThanOrEqualTo(least - 1e-9);
            assertThat(treeCost.of(found.tree(), cost)).as("seed %d", seed).isCloseTo(found.cost(), within(1e-9));
            if (found.isCheapest()) {
                solved++;
                assertThat(found.cost()).as("seed %d", seed).isCloseTo(least, within(1e-9));
            }
        }
        assertThat(known).isGreaterThan(50);
        assertThat(solved).isGreaterThan(known * 95 / 100);
    }

    /** Every tree of every split, without a memory or a bound. */
    private static final class AllTrees {
        private static final int MOST = 5_000;
        private final KeyProblem problem;
        private final SplitCost cost;
        private final TreeCost treeCost;
        private int tried;

        AllTrees(KeyProblem problem, SplitCost cost, TreeCost treeCost) {
            this.problem = problem;
            this.cost = cost;
            this.treeCost = treeCost;
        }

        /** Of no use where too many were tried. */
        double least(Position position) {
            if (++tried > MOST) {
                return 0;
            }
            List<Candidate> candidates =
                    new SplitSurveyor(problem, cost, new SetQuestions(problem, List.of())).candidates(position);
            double least = candidates.isEmpty() ? treeCost.loss(position, cost) : Double.POSITIVE_INFINITY;
            for (Candidate candidate : candidates) {
                Split split = candidate.split();
                double asking = position.total * cost.asking(position, split);
                least = Math.min(
                        least, asking + least(position.follow(split, true)) + least(position.follow(split, false)));
            }
            return least;
        }
    }

    /** Rows of which one has no wing: what it says of wings is a guess, which two ways of asking share out otherwise. */
    @Test
    void whereSomethingWasGuessedTheWayThereCounts() {
        List<MatrixCharacter> characters = List.of(
                MatrixCharacter.of("wing", CharacterType.STATES, 3, 0),
                MatrixCharacter.of("leg", CharacterType.STATES, 2, 1));
        List<MatrixRow> rows = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            rows.add(new MatrixRow("row-" + i, i, i, 1, Hazard.NONE_KNOWN));
        }
        Cell[] legs = {Cell.Categorical.single(0, 2), Cell.Categorical.single(1, 2)};
        Cell[][] cells = {
            {Cell.Categorical.single(0, 3), legs[0]},
            {Cell.Categorical.single(1, 3), legs[0]},
            {Cell.Categorical.single(2, 3), legs[1]},
            {Cell.NOT_APPLICABLE, legs[0]}
        };
        Position start = Position.start(new KeyProblem(Matrix.of(rows, characters, cells), true));
        Split leg = Split.states(1, 0b01, 0b10);
        Position wingFirst = start.follow(Split.states(0, 0b001, 0b110), true).follow(leg, true);
        Position legFirst = start.follow(leg, true).follow(Split.states(0, 0b001, 0b010), true);
        assertThat(wingFirst.classes).isEqualTo(legFirst.classes).containsExactly(0, 3);
        assertThat(wingFirst.masks).isEqualTo(legFirst.masks);
        assertThat(wingFirst.mass[1]).isNotCloseTo(legFirst.mass[1], within(0.01));
        for (boolean allAsked : new boolean[] {true, false}) {
            assertThat(PositionKey.of(wingFirst, allAsked)).isNotEqualTo(PositionKey.of(legFirst, allAsked));
        }
    }

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 20);
    }

    /** Six taxa by four measures whose ranges overlap; 9 to 11 rows that vary: what has time to be searched is the shortest. */
    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void whatIsSmallIsSearchedToTheEnd(long seed) {
        Matrix measures = measures(seed);
        Matrix varied = new SyntheticMatrix(9 + (int) (seed % 3), 10, 4, 0.3, 0, 0, 0, false).generate(seed);
        assertThat(fewest(measures, 20_000).isCheapest()).as("measures").isTrue();
        Searched found = fewest(varied, 20_000);
        assertThat(found.cost() / found.bound()).as("varied").isLessThan(1.03);
    }

    private static Matrix measures(long seed) {
        Random random = new Random(seed);
        List<MatrixCharacter> characters = new ArrayList<>();
        List<MatrixRow> rows = new ArrayList<>();
        Cell[][] cells = new Cell[6][4];
        for (int c = 0; c < 4; c++) {
            characters.add(MatrixCharacter.of("measure-" + c, CharacterType.LENGTH, 0, c));
        }
        for (int i = 0; i < 6; i++) {
            rows.add(new MatrixRow("row-" + i, i, i, 1, Hazard.NONE_KNOWN));
            for (int c = 0; c < 4; c++) {
                double from = 10 + random.nextInt(30);
                cells[i][c] = Cell.Numeric.range(from, from + 6 + random.nextInt(10));
            }
        }
        return Matrix.of(rows, characters, cells);
    }
}
