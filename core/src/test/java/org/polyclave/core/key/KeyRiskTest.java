package org.polyclave.core.key;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.key.KeyOutcome.Generated;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.Misreading;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.statistics.Measured;
import org.polyclave.core.testkit.CoupletReaders;
import org.polyclave.core.testkit.SyntheticMatrix;

/** What becomes of readers, against readers who are followed one by one. */
class KeyRiskTest {
    private static final int READERS = Integer.getInteger("polyclave.readers", 10_000);

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 40);
    }

    /** Rates differ by character, by observer and, for every third character, by row; a third of the rows are dangerous. */
    private static Matrix matrix(long seed) {
        Random random = new Random(seed);
        int rows = 4 + (int) (seed % 9);
        Matrix even = new SyntheticMatrix(rows, 8, 4, 0.25, 0.05, 0.3, 0.3, false).generate(seed);
        List<MatrixRow> some = new ArrayList<>();
        for (MatrixRow row : even.rows()) {
            Hazard hazard = random.nextInt(3) == 0 ? Hazard.SERIOUS : Hazard.CAUTION;
            some.add(new MatrixRow(row.id(), row.name(), row.kin(), row.weight(), hazard));
        }
        Matrix plain = Matrix.of(some, even.characters(), SyntheticMatrix.cells(even));
        return SyntheticMatrix.withCharacters(plain, c -> {
            List<Double> own = new ArrayList<>();
            for (int row = 0; row < rows && c.organ() % 3 == 0; row++) {
                own.add(random.nextBoolean() ? -1 : random.nextDouble() / 3);
            }
            double trained = random.nextDouble() / 4;
            return c.withMisreading(new Misreading(trained, trained + random.nextDouble() / 4, own, own));
        });
    }

    private static KeyResult key(Matrix matrix, KeyObjective objective) {
        KeyOptions options = KeyOptions.DEFAULT.withNodeBudget(60).withObjective(objective);
        return ((Generated) new KeyGenerator().generate(matrix, options, CancelSignal.NEVER)).result();
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void readersEndAsIsWorkedOut(long seed) {
        Matrix matrix = matrix(seed);
        Observer observer = seed % 2 == 0 ? Observer.TRAINED : Observer.NOVICE;
        for (KeyObjective objective : KeyObjective.values()) {
            KeyResult result = key(matrix, objective);
            KeyRisk risk = observer == Observer.TRAINED
                    ? result.figures().trained()
                    : result.figures().novice();
            CoupletReaders.Ends ends =
                    new CoupletReaders(matrix, result.key(), observer, 1_000_003 * seed + 17).run(READERS);
            assertClose(objective + ": right", ends.right(), risk.right());
            assertClose(objective + ": wrong", ends.wrong(), risk.wrong());
            assertClose(objective + ": dangerous", ends.dangerous(), risk.dangerousWrong());
            assertClose(objective + ": stuck", ends.stuck(), risk.stuck());
        }
    }

    /** Within four standard errors. */
    private static void assertClose(String what, int counted, double expected) {
        double error = Math.sqrt(Math.max(expected * (1 - expected), 1.0 / READERS) / READERS);
        assertThat((double) counted / READERS).as(what).isCloseTo(expected, within(4 * error));
    }

    /** Three states, one taxon each, the second dangerous; a trained reader takes a state for either other in 1 of 10. */
    @Test
    void threeTaxaByOneCharacterCanBeWorkedOutByHand() {
        List<MatrixCharacter> one = List.of(MatrixCharacter.of("cap", CharacterType.STATES, 3, 0)
                .withMisreading(new Misreading(0.1, 0.3, List.of(), List.of())));
        List<MatrixRow> rows = new ArrayList<>();
        Cell[][] cells = new Cell[3][];
        for (int i = 0; i < 3; i++) {
            rows.add(new MatrixRow("row-" + i, i, i, 1, i == 1 ? Hazard.SERIOUS : Hazard.NONE_KNOWN));
            cells[i] = new Cell[] {Cell.Categorical.single(i, 3)};
        }
        KeyResult.Figures figures =
                key(Matrix.of(rows, one, cells), KeyObjective.FEWEST).figures();
        assertThat(figures.trained().right()).isCloseTo(0.9, within(1e-12));
        assertThat(figures.trained().wrong()).isCloseTo(0.1, within(1e-12));
        assertThat(figures.trained().dangerousWrong()).isCloseTo(0.1 / 3, within(1e-12));
        assertThat(figures.novice().dangerousWrong()).isCloseTo(0.3 / 3, within(1e-12));
    }

    /** Two samples of four; nobody misreads, but the next individual may lie beyond the limit. */
    @Test
    void individualsBeyondALimitArriveAtTheOtherName() {
        MatrixCharacter width = MatrixCharacter.of("width", CharacterType.LENGTH, 0, 0)
                .withMisreading(new Misreading(0, 0, List.of(), List.of()));
        List<MatrixRow> rows = List.of(
                new MatrixRow("narrow", 0, 0, 1, Hazard.NONE_KNOWN), new MatrixRow("wide", 1, 1, 1, Hazard.NONE_KNOWN));
        Cell[][] cells = {
            {new Cell.Numeric(8, 8, 12, 12, Optional.of(new Measured(4, 10, 2)))},
            {new Cell.Numeric(15, 15, 19, 19, Optional.of(new Measured(4, 17, 2)))}
        };
        KeyResult result = key(Matrix.of(rows, List.of(width), cells), KeyObjective.FEWEST);
        double cut = result.key().couplets().get(0).leads().stream()
                .map(lead -> (Atoms.Interval) lead.statements().get(0).atoms())
                .mapToDouble(Atoms.Interval::max)
                .min()
                .orElseThrow();
        double expected = (tail((cut - 10) / Math.sqrt(5)) + tail((17 - cut) / Math.sqrt(5))) / 2;
        assertThat(result.figures().trained().wrong()).isCloseTo(expected, within(0.005));
    }

    /** Above t, of Student's t with three degrees of freedom. */
    private static double tail(double t) {
        double x = t / Math.sqrt(3);
        return 0.5 - (x / (1 + x * x) + Math.atan(x)) / Math.PI;
    }
}
