package org.polyclave.core.reading;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;

/** What was examined on a way through a couplet key, and what comes of it. */
final class ExaminedStatementsTest {
    private static final double INF = Double.POSITIVE_INFINITY;

    private static MatrixCharacter character(CharacterType type, int states, int organ) {
        return MatrixCharacter.of("c" + organ, type, states, organ);
    }

    private static final Matrix SIZES = matrix(
            List.of(character(CharacterType.LENGTH, 0, 0), character(CharacterType.STATES, 3, 1)),
            new Cell[] {Cell.Numeric.range(2, 4), Cell.Categorical.single(0, 3)},
            new Cell[] {Cell.Numeric.range(6, 10), Cell.Categorical.single(1, 3)},
            new Cell[] {Cell.Numeric.range(9, 20), Cell.Categorical.single(2, 3)});

    private static Matrix matrix(List<MatrixCharacter> characters, Cell[]... cells) {
        List<MatrixRow> rows = IntStream.range(0, cells.length)
                .mapToObj(i -> new MatrixRow("row-" + i, i, i, 1, i == 0 ? Hazard.SERIOUS : Hazard.NONE_KNOWN))
                .toList();
        return Matrix.of(rows, characters, cells);
    }

    /** Nobody saw a number without end: a limit on one side reaches to what some row shows. */
    @Test
    void limitsBecomeRanges() {
        ExaminedStatements examined = new ExaminedStatements(SIZES);
        examined.measures(0, 5, INF);
        assertThat(examined.answers()).containsExactly(measured(12.5, 7.5));
        examined.measures(0, -INF, 8);
        assertThat(examined.answers()).containsExactly(measured(6.5, 1.5));
        examined.measures(0, 8.5, INF);
        assertThat(examined.answers()).isEmpty();
        assertThat(examined.contradicted()).containsExactly(0);
    }

    /** Of a limit both sides cannot be true, but a count can be told exactly. */
    @Test
    void twoSidesOfALimitContradictEachOther() {
        ExaminedStatements sizes = new ExaminedStatements(SIZES);
        sizes.measures(0, -INF, 5);
        sizes.measures(0, 5, INF);
        assertThat(sizes.contradicted()).containsExactly(0);
        Matrix counts = matrix(
                List.of(character(CharacterType.COUNT, 0, 0)),
                new Cell[] {Cell.Numeric.range(3, 5)},
                new Cell[] {Cell.Numeric.range(5, 9)});
        ExaminedStatements counted = new ExaminedStatements(counts);
        counted.measures(0, -INF, 5);
        counted.measures(0, 5, INF);
        assertThat(counted.contradicted()).isEmpty();
        assertThat(counted.answers()).containsExactly(measured(5, 0));
    }

    @Test
    void whatEveryRowShowsTellsNothing() {
        ExaminedStatements examined = new ExaminedStatements(SIZES);
        examined.measures(0, 1, 30);
        examined.shows(1, 0b111);
        assertThat(examined.answers()).isEmpty();
        assertThat(examined.contradicted()).isEmpty();
        examined.measures(0, 25, INF);
        assertThat(examined.answers()).isEmpty();
    }

    private static Answer measured(double middle, double half) {
        return new Answer(0, new Observation.MeasuredObservation(middle, half), Certainty.SURE);
    }

    /** Against sets of states: what every statement admits is left, in whatever order they come. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void statementsOfOneCharacterNarrowOneLook(long seed) {
        Random random = new Random(seed);
        for (int trial = 0; trial < 50; trial++) {
            int states = 2 + random.nextInt(5);
            Matrix matrix = matrix(
                    List.of(character(CharacterType.STATES, states, 0)),
                    new Cell[] {Cell.Categorical.single(0, states)});
            ExaminedStatements examined = new ExaminedStatements(matrix);
            TreeSet<Integer> left =
                    new TreeSet<>(IntStream.range(0, states).boxed().toList());
            for (int k = 1 + random.nextInt(3); k > 0; k--) {
                List<Integer> admitted = new ArrayList<>(IntStream.range(0, states)
                        .filter(s -> random.nextBoolean())
                        .boxed()
                        .toList());
                int mask = admitted.stream().mapToInt(s -> 1 << s).sum();
                if (random.nextBoolean()) {
                    examined.shows(0, mask);
                    left.retainAll(admitted);
                } else {
                    examined.showsNone(0, mask);
                    left.removeAll(admitted);
                }
            }
            int expected = left.stream().mapToInt(s -> 1 << s).sum();
            assertThat(examined.contradicted()).hasSize(left.isEmpty() ? 1 : 0);
            assertThat(examined.answers())
                    .hasSize(left.isEmpty() || left.size() == states ? 0 : 1)
                    .allMatch(a -> a.observation().equals(new Observation.Seen(expected)));
        }
    }

    /** A danger that the way of a couplet key never looked at twice stands at its end; two parts examined rule it out. */
    @Test
    void whatWasNotExaminedNeverRulesADangerOut() {
        List<MatrixCharacter> characters = IntStream.range(0, 7)
                .mapToObj(o -> character(CharacterType.STATES, 2, o))
                .toList();
        Matrix matrix = matrix(characters, row(0, 0, 0, 0, 0, 0, 0), row(1, 1, 1, 1, 1, 1, 1));
        ExaminedStatements examined = new ExaminedStatements(matrix);
        examined.shows(0, 0b10);
        assertThat(identify(matrix, examined).margins().get(0).ruledOut()).isFalse();
        for (int c = 1; c < 7; c++) {
            examined.shows(c, 0b10);
        }
        assertThat(identify(matrix, examined).margins().get(0).ruledOut()).isTrue();
        // The same statements, read again at a later couplet, are no second look.
        ExaminedStatements repeated = new ExaminedStatements(matrix);
        for (int times = 0; times < 4; times++) {
            repeated.shows(0, 0b10);
            repeated.shows(1, 0b10);
        }
        ExaminedStatements once = new ExaminedStatements(matrix);
        once.shows(0, 0b10);
        once.shows(1, 0b10);
        assertThat(identify(matrix, repeated)).isEqualTo(identify(matrix, once));
    }

    @Test
    void aNameIsHeldAgainstItsWholeDescription() {
        List<MatrixCharacter> characters = List.of(
                character(CharacterType.STATES, 2, 0).as(CharacterRole.NECESSARY),
                character(CharacterType.STATES, 2, 1),
                character(CharacterType.STATES, 2, 2),
                character(CharacterType.STATES, 2, 3));
        Matrix matrix = matrix(characters, row(0, 0, 0, 0), new Cell[] {
            Cell.Categorical.single(1, 2), Cell.Categorical.single(1, 2), Cell.Categorical.single(1, 2), Cell.UNKNOWN
        });
        ExaminedStatements examined = new ExaminedStatements(matrix);
        examined.shows(1, 0b10);
        examined.shows(2, 0b01);
        examined.shows(3, 0b01);
        assertThat(DescriptionCheck.of(matrix, 1, identify(matrix, examined)))
                .containsExactly(
                        new DescriptionCheck.Point(0, DescriptionCheck.Verdict.NOT_EXAMINED, true, false),
                        new DescriptionCheck.Point(1, DescriptionCheck.Verdict.AGREES, false, false),
                        new DescriptionCheck.Point(2, DescriptionCheck.Verdict.DISAGREES, false, false));
    }

    private static Cell[] row(int... states) {
        return IntStream.of(states)
                .mapToObj(s -> (Cell) Cell.Categorical.single(s, 2))
                .toArray(Cell[]::new);
    }

    private static Identification identify(Matrix matrix, ExaminedStatements examined) {
        return new AnyOrderIdentifier(matrix).identify(examined.answers(), IdentifyOptions.WEIGH);
    }
}
