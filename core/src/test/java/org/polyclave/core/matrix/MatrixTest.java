package org.polyclave.core.matrix;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;

class MatrixTest {
    private static final MatrixCharacter COLOUR = MatrixCharacter.of("colour", CharacterType.STATES, 3, 0);
    private static final MatrixCharacter WIDTH = MatrixCharacter.of("width", CharacterType.LENGTH, 0, 1);
    private static final List<MatrixRow> ROWS =
            List.of(new MatrixRow("a", 0, 0, 1, Hazard.NONE_KNOWN), new MatrixRow("b", 1, 1, 1, Hazard.NOT_ASSESSED));

    private static Matrix matrix() {
        return Matrix.of(ROWS, List.of(COLOUR, WIDTH), new Cell[][] {
            {Cell.Categorical.single(0, 3), Cell.Numeric.range(1, 2)}, {Cell.Categorical.even(0b110, 3), Cell.UNKNOWN}
        });
    }

    @Test
    void aChangedCellYieldsANewMatrixAndLeavesTheOld() {
        Matrix old = matrix();
        Matrix changed = old.with(0, 0, Cell.UNKNOWN);
        assertThat(old.cell(0, 0)).isEqualTo(Cell.Categorical.single(0, 3));
        assertThat(changed.cell(0, 0)).isEqualTo(Cell.UNKNOWN);
        assertThat(changed.cell(1, 0)).isSameAs(old.cell(1, 0));
    }

    @Test
    void cellsMustFitTheirCharacter() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> matrix().with(0, 0, Cell.Numeric.range(1, 2)))
                .withMessageContaining("row 'a'")
                .withMessageContaining("'colour'");
        assertThatIllegalArgumentException().isThrownBy(() -> matrix().with(0, 1, Cell.Categorical.single(0, 3)));
        assertThatIllegalArgumentException().isThrownBy(() -> matrix().with(0, 0, Cell.Categorical.single(0, 2)));
        assertThatIllegalArgumentException().isThrownBy(() -> new Cell.Numeric(3, 2, 4, 5));
        assertThatIllegalArgumentException().isThrownBy(() -> new Cell.Categorical(0b11, 0b01, new double[] {1, 0}));
        assertThatIllegalArgumentException().isThrownBy(() -> new MatrixRow("a", 0, 0, 0, Hazard.CAUTION));
    }

    @Test
    void conditionsMustNotCircleNorNameNumbers() {
        MatrixCharacter onWidth = COLOUR.when(List.of(new ControllingCondition(1, 1)));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Matrix.of(List.of(), List.of(onWidth, WIDTH), new Cell[0][]))
                .withMessageContaining("has no states");
        MatrixCharacter first = COLOUR.when(List.of(new ControllingCondition(1, 1)));
        MatrixCharacter second =
                MatrixCharacter.of("shade", CharacterType.ORDERED, 3, 1).when(List.of(new ControllingCondition(0, 1)));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Matrix.of(List.of(), List.of(first, second), new Cell[0][]))
                .withMessageContaining("depends on itself");
    }

    @Test
    void unknownCellsHaveTheMixtureOfTheScored() {
        Matrix matrix = matrix();
        Distributions distributions = new Distributions(matrix, RangeDistribution.Tails.CUT);
        assertThat(distributions.states(0, Cell.UNKNOWN))
                .containsExactly(new double[] {0.5, 0.25, 0.25}, within(1e-12));
        assertThat(distributions.states(0, matrix.cell(1, 0))).containsExactly(0, 0.5, 0.5);
        assertThat(distributions.range(1, Cell.UNKNOWN).share(1, 1.5)).isCloseTo(0.5, within(1e-12));
    }

    @Test
    void thirtyTwoStatesFitOneWord() {
        MatrixCharacter wide = MatrixCharacter.of("wide", CharacterType.STATES, 32, 0);
        assertThat(wide.allStates()).isEqualTo(-1);
        Cell.Categorical last = Cell.Categorical.single(31, 32);
        assertThat(last.share(-1)).isEqualTo(1);
        assertThat(last.share(Integer.MAX_VALUE)).isZero();
        assertThat(COLOUR.allStates()).isEqualTo(0b111);
    }

    @Test
    void dangerousMeansSeriousOrWorse() {
        assertThat(List.of(Hazard.values()))
                .filteredOn(Hazard::isDangerous)
                .containsExactly(Hazard.SERIOUS, Hazard.LIFE_THREATENING);
    }
}
