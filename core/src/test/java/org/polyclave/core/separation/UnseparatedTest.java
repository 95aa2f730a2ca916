package org.polyclave.core.separation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;

/** What separates nothing, though it may look as if it did. */
class UnseparatedTest {
    private static Cell state(int s) {
        return Cell.Categorical.single(s, 2);
    }

    @Test
    void unknownInapplicableAndTouchingSeparateNothing() {
        MatrixCharacter winged = MatrixCharacter.of("winged", CharacterType.STATES, 2, 0);
        MatrixCharacter wing =
                MatrixCharacter.of("wing", CharacterType.STATES, 2, 1).when(List.of(new ControllingCondition(0, 0b10)));
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

    @Test
    void whatOnlyConfirmsSeparatesNothingButIsTold() {
        MatrixCharacter leaf = MatrixCharacter.of("leaf", CharacterType.STATES, 2, 0);
        MatrixCharacter stem = MatrixCharacter.of("stem", CharacterType.STATES, 2, 1);
        List<MatrixRow> rows =
                List.of(new MatrixRow("a", 0, 0, 1, Hazard.NONE_KNOWN), new MatrixRow("b", 1, 1, 1, Hazard.NONE_KNOWN));
        Cell[][] cells = {{state(0), state(0)}, {state(1), state(1)}};
        for (CharacterRole role : CharacterRole.values()) {
            boolean decides = role == CharacterRole.DECIDES || role == CharacterRole.NEVER_FIRST;
            Matrix matrix = Matrix.of(rows, List.of(leaf, stem.as(role)), cells);
            StrictSeparation separation = new StrictSeparation(matrix);
            assertThat(separation.difference(0, 1, 1)).isEqualTo(decides ? Difference.STRICT : Difference.CONFIRMS);
            assertThat(separation.verdict(0, 1)).isEqualTo(decides ? Verdict.FIRM : Verdict.THIN);
            assertThat(PairVerdicts.of(matrix, SeparationContext.EVERYTHING).verdict(0, 1))
                    .isEqualTo(decides ? Verdict.FIRM : Verdict.THIN);
            Matrix alone = Matrix.of(rows, List.of(stem.as(role)), new Cell[][] {{state(0)}, {state(1)}});
            assertThat(new StrictSeparation(alone).verdict(0, 1)).isEqualTo(decides ? Verdict.THIN : Verdict.TENDENCY);
        }
        MatrixCharacter same = stem.as(CharacterRole.CONFIRMS);
        Matrix alike = Matrix.of(rows, List.of(leaf, same), new Cell[][] {{state(0), state(1)}, {state(1), state(1)}});
        assertThat(new StrictSeparation(alike).difference(0, 1, 1)).isEqualTo(Difference.SHARED);
    }
}
