package org.polyclave.core.evidence;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;

/** What may count against a danger, clause by clause. */
class UsableEvidenceTest {
    private static UsableEvidence of(MatrixCharacter character, Cell danger, Cell other) {
        List<MatrixRow> rows = List.of(
                new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS), new MatrixRow("mild", 1, 1, 1, Hazard.NONE_KNOWN));
        return new UsableEvidence(Matrix.of(rows, List.of(character), new Cell[][] {{danger}, {other}}));
    }

    private static MatrixCharacter character(CharacterType type, double uncertainty, boolean countsForSafety) {
        int states = type == CharacterType.STATES ? 3 : 0;
        return new MatrixCharacter(
                "c",
                type,
                states,
                List.of(),
                0,
                0,
                0,
                1,
                uncertainty,
                0.05,
                MatrixCharacter.ALL_MONTHS,
                false,
                countsForSafety);
    }

    @ParameterizedTest
    @CsvSource({
        "LENGTH, 0.9, 4, 5, true",
        "LENGTH, 1.0, 4, 5, false",
        "LENGTH, 1.1, 4, 5, false",
        "LENGTH, 0, 4, 4, false",
        "LENGTH, 0, 4, 4.2, false",
        "LENGTH, 0, 4, 5, true",
        "LENGTH, 0.05, 4, 4.1, true",
        "COUNT, 5, 4, 5, true",
        "COUNT, 0, 4, 4, false"
    })
    void rangesAreApartByMoreThanTheReadingsUncertainty(
            CharacterType type, double uncertainty, double end, double begin, boolean apart) {
        UsableEvidence evidence =
                of(character(type, uncertainty, true), Cell.Numeric.range(1, end), Cell.Numeric.range(begin, 9));
        assertThat(evidence.separates(0, 1, 0)).isEqualTo(apart);
        assertThat(evidence.separates(1, 0, 0)).isEqualTo(apart);
    }

    @Test
    void anOdourIsSeenButCountsForNothing() {
        Cell[] cells = {Cell.Categorical.single(0, 3), Cell.Categorical.single(1, 3)};
        UsableEvidence sign = of(character(CharacterType.STATES, 0, true), cells[0], cells[1]);
        UsableEvidence odour = of(character(CharacterType.STATES, 0, false), cells[0], cells[1]);
        assertThat(sign.isUsable(0, 1, 0)).isTrue();
        assertThat(odour.isDisjoint(0, 1, 0)).isTrue();
        assertThat(odour.isUsable(0, 1, 0)).isFalse();
        assertThat(odour.separating(0, 1)).isEmpty();
    }

    @Test
    void whatMayNotExistCountsForNothing() {
        MatrixCharacter wings = MatrixCharacter.of("wings", CharacterType.STATES, 2, 0);
        MatrixCharacter colour = MatrixCharacter.of("wing colour", CharacterType.STATES, 2, 1)
                .when(List.of(new ControllingCondition(0, 0b10)));
        for (int shown : new int[] {0b10, 0b11}) {
            Matrix matrix = Matrix.of(
                    List.of(
                            new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS),
                            new MatrixRow("mild", 1, 1, 1, Hazard.NONE_KNOWN)),
                    List.of(wings, colour),
                    new Cell[][] {
                        {Cell.Categorical.even(shown, 2), Cell.Categorical.single(0, 2)},
                        {Cell.Categorical.single(1, 2), Cell.Categorical.single(1, 2)}
                    });
            assertThat(new UsableEvidence(matrix).separates(0, 1, 1))
                    .as("the danger has wings: %s", shown)
                    .isEqualTo(shown == 0b10);
        }
    }

    @Test
    void aCountOfNothingIsAnAbsence() {
        MatrixCharacter teeth = character(CharacterType.COUNT, 0, true).withAbsence(1);
        UsableEvidence evidence = of(teeth, Cell.Numeric.range(0, 0), Cell.Numeric.range(4, 6));
        assertThat(evidence.isAbsence(0, new Observation.MeasuredObservation(0, 0)))
                .isTrue();
        assertThat(evidence.isAbsence(0, new Observation.MeasuredObservation(1, 0)))
                .isFalse();
        assertThat(evidence.separates(0, 1, 0)).as("teeth that are there").isTrue();
        assertThat(evidence.separates(1, 0, 0)).as("no teeth").isFalse();
        UsableEvidence width =
                of(character(CharacterType.LENGTH, 0.1, true), Cell.Numeric.range(0, 0.2), Cell.Numeric.range(4, 6));
        assertThat(width.isAbsence(0, new Observation.MeasuredObservation(0.1, 0)))
                .isFalse();
    }

    @Test
    void whatReadersMayTakeEitherForSeparatesNothing() {
        MatrixCharacter sign = character(CharacterType.STATES, 0, true);
        Cell white = Cell.Categorical.single(1, 3);
        Cell mistaken = new Cell.Categorical(0b001, 0b011, new double[] {1, 0, 0});
        assertThat(of(sign, Cell.Categorical.single(0, 3), white).separates(0, 1, 0))
                .isTrue();
        assertThat(of(sign, mistaken, white).separates(0, 1, 0)).isFalse();
        assertThat(of(sign, white, mistaken).separates(0, 1, 0)).isFalse();
    }

    @Test
    void whatOneOfThemIsNotScoredForComparesNothing() {
        MatrixCharacter sign = character(CharacterType.STATES, 0, true);
        assertThat(of(sign, Cell.UNKNOWN, Cell.Categorical.single(1, 3)).isCompared(0, 1, 0))
                .isFalse();
        assertThat(of(sign, Cell.Categorical.single(1, 3), Cell.UNKNOWN).isCompared(0, 1, 0))
                .isFalse();
    }
}
