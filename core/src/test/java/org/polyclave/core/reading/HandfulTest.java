package org.polyclave.core.reading;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;

/** A dozen mushrooms in one basket. */
final class HandfulTest {
    private static final int PARTS = 8;
    private static final int SIZE = PARTS;
    private static final Matrix MATRIX = matrix();

    /** Row 0 is deadly and differs from row 1 in every part; the size overlaps. */
    private static Matrix matrix() {
        List<MatrixCharacter> characters = new ArrayList<>();
        IntStream.range(0, PARTS)
                .mapToObj(c -> MatrixCharacter.of("part-" + c, CharacterType.STATES, 2, c))
                .forEach(characters::add);
        characters.add(MatrixCharacter.of("size", CharacterType.LENGTH, 0, SIZE));
        return Matrix.of(
                List.of(
                        new MatrixRow("deadly", 0, 0, 1, Hazard.LIFE_THREATENING),
                        new MatrixRow("mild", 1, 1, 1, Hazard.NONE_KNOWN)),
                characters,
                new Cell[][] {cells(0, 20), cells(1, 30)});
    }

    private static Cell[] cells(int state, double size) {
        List<Cell> cells = new ArrayList<>();
        IntStream.range(0, PARTS).forEach(c -> cells.add(Cell.Categorical.single(state, 2)));
        cells.add(Cell.Numeric.range(size, size + 40));
        return cells.toArray(Cell[]::new);
    }

    private static Answer saw(int character, int state) {
        return new Answer(character, new Observation.Seen(1 << state), Certainty.SURE);
    }

    private static Answer measured(double size) {
        return new Answer(SIZE, new Observation.MeasuredObservation(size, 1), Certainty.SURE);
    }

    private static List<Answer> all(int state) {
        return IntStream.range(0, PARTS).mapToObj(c -> saw(c, state)).toList();
    }

    private static List<Handful.Group> groups(List<List<Answer>> individuals) {
        return Handful.of(new AnyOrderIdentifier(MATRIX), individuals, IdentifyOptions.WEIGH);
    }

    @Test
    void aDeadlyOneAmongElevenHarmlessIsTold() {
        List<List<Answer>> basket = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            basket.add(all(i == 2 ? 0 : 1));
        }
        List<Handful.Group> groups = groups(basket);
        assertThat(groups).hasSize(2);
        assertThat(groups.get(0).individuals()).hasSize(11).doesNotContain(2);
        assertThat(groups.get(0).differing()).isEmpty();
        assertThat(groups.get(0).found().margins().get(0).ruledOut()).isTrue();
        assertThat(groups.get(1).individuals()).containsExactly(2);
        assertThat(groups.get(1).differing()).hasSize(PARTS);
        assertThat(groups.get(1).found().standings().get(0).row()).isZero();
        assertThat(groups.get(1).found().margins().get(0).ruledOut()).isFalse();
    }

    /** That eleven are harmless says nothing about the twelfth: what nobody looked at on it keeps the danger open. */
    @Test
    void nothingIsBorrowedFromTheOthers() {
        List<List<Answer>> basket = new ArrayList<>();
        for (int i = 0; i < 11; i++) {
            basket.add(all(1));
        }
        basket.add(List.of(saw(0, 1)));
        Handful.Group last = groups(basket).get(1);
        assertThat(last.individuals()).containsExactly(11);
        assertThat(last.differing()).isEmpty();
        assertThat(last.missing()).containsExactly(1, 2, 3, 4, 5, 6, 7);
        assertThat(last.found().margins().get(0).ruledOut()).isFalse();
        assertThat(last.found())
                .isEqualTo(groups(List.of(basket.get(11))).get(0).found());
    }

    @Test
    void sizesDifferOnlyBeyondWhatTheyAreReadTo() {
        List<List<Answer>> basket =
                List.of(List.of(measured(30)), List.of(measured(31.5)), List.of(measured(29)), List.of(measured(44)));
        assertThat(groups(basket).stream().map(Handful.Group::differing))
                .containsExactly(List.of(), List.of(), List.of(), List.of(SIZE));
        // One of two stands against the other: the first is taken for what most show.
        assertThat(groups(List.of(List.of(saw(0, 1)), List.of(saw(0, 0)))).stream()
                        .map(Handful.Group::differing))
                .containsExactly(List.of(), List.of(0));
        assertThat(groups(List.of(List.of(saw(0, 1)), List.<Answer>of())).get(1).missing())
                .as("half are not most")
                .isEmpty();
    }
}
