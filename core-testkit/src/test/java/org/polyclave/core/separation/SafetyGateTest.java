package org.polyclave.core.separation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Controller;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;

class SafetyGateTest {
    private static final int JUNE = 1 << 5;

    private static MatrixCharacter character(String id, int group, int months, boolean hazardous, boolean counts) {
        return new MatrixCharacter(
                id, CharacterType.STATES, 2, List.of(), group, 0, group, 1, 0, 0.05, months, hazardous, counts);
    }

    private static Cell state(int s) {
        return Cell.Categorical.single(s, 2);
    }

    private static Matrix matrix(List<MatrixCharacter> characters) {
        Cell[][] cells = new Cell[2][characters.size()];
        for (int c = 0; c < characters.size(); c++) {
            cells[0][c] = state(0);
            cells[1][c] = state(1);
        }
        return Matrix.of(
                List.of(
                        new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS),
                        new MatrixRow("mild", 1, 1, 1, Hazard.NOT_ASSESSED)),
                characters,
                cells);
    }

    @Test
    void twoIndependentSafeCharactersInEveryMonthAreNeeded() {
        MatrixCharacter leaf = character("leaf", 0, MatrixCharacter.ALL_MONTHS, false, true);
        MatrixCharacter stem = character("stem", 1, MatrixCharacter.ALL_MONTHS, false, true);
        MatrixCharacter leafAgain = character("leaf2", 0, MatrixCharacter.ALL_MONTHS, false, true);
        MatrixCharacter flower = character("flower", 2, JUNE, false, true);
        MatrixCharacter cut = character("cut", 3, MatrixCharacter.ALL_MONTHS, true, true);
        MatrixCharacter odour = character("odour", 4, MatrixCharacter.ALL_MONTHS, false, false);
        assertThat(SafetyGate.unmet(matrix(List.of(leaf, stem)), 0xFFF)).isEmpty();
        assertThat(SafetyGate.unmet(matrix(List.of(leaf, leafAgain, cut, odour)), 0xFFF))
                .containsExactly(new SafetyGate.UnmetPair(0, 1, 0xFFF, 1));
        assertThat(SafetyGate.unmet(matrix(List.of(leaf, flower)), 0xFFF))
                .containsExactly(new SafetyGate.UnmetPair(0, 1, 0xFFF & ~JUNE, 1));
        assertThat(SafetyGate.unmet(matrix(List.of(leaf, flower)), JUNE)).isEmpty();
    }

    @Test
    void unknownInapplicableAndTouchingSeparateNothing() {
        MatrixCharacter winged = MatrixCharacter.of("winged", CharacterType.STATES, 2, 0);
        MatrixCharacter wing =
                MatrixCharacter.of("wing", CharacterType.STATES, 2, 1).when(List.of(new Controller(0, 0b10)));
        MatrixCharacter size = MatrixCharacter.of("size", CharacterType.LENGTH, 0, 2);
        List<MatrixRow> rows =
                List.of(new MatrixRow("a", 0, 0, 1, Hazard.NONE_KNOWN), new MatrixRow("b", 1, 1, 1, Hazard.NONE_KNOWN));
        Cell varies = Cell.Categorical.even(0b11, 2);
        Cell[][] cells = {{varies, state(0), Cell.Numeric.range(5, 7)}, {state(1), state(1), Cell.Numeric.range(7, 9)}};
        StrictSeparation separation = new StrictSeparation(Matrix.of(rows, List.of(winged, wing, size), cells));
        assertThat(separation.separating(0, 1))
                .as("wings of a may be missing; sizes touch")
                .isEmpty();
        assertThat(separation.verdict(0, 1)).isEqualTo(Verdict.NONE);
        cells[0][0] = state(1);
        assertThat(new StrictSeparation(Matrix.of(rows, List.of(winged, wing, size), cells)).separating(0, 1))
                .containsExactly(1);
    }
}
