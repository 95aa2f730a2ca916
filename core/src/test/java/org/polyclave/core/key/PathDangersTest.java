package org.polyclave.core.key;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.Misreading;
import org.polyclave.core.testkit.SyntheticMatrix;

/** What a reader has not ruled out at the end of a couplet key: each clause on a key of one couplet. */
class PathDangersTest {
    private static final Key.ToRows BANE = new Key.ToRows(List.of(0), Key.Reason.NONE);
    private static final Key.ToRows MILD = new Key.ToRows(List.of(1), Key.Reason.NONE);

    /** A dangerous row and a harmless one, unlike in everything, on these parts. */
    private static Matrix matrix(boolean[][] weak, int... parts) {
        List<MatrixCharacter> characters = new ArrayList<>();
        Cell[][] cells = new Cell[2][parts.length];
        for (int c = 0; c < parts.length; c++) {
            characters.add(
                    MatrixCharacter.of("c" + c, CharacterType.STATES, 3, c).on(parts[c], List.of()));
            cells[0][c] = Cell.Categorical.single(0, 3);
            cells[1][c] = Cell.Categorical.single(1, 3);
        }
        return Matrix.of(
                List.of(
                        new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS),
                        new MatrixRow("mild", 1, 1, 1, Hazard.NONE_KNOWN)),
                characters,
                cells,
                weak,
                new int[2][parts.length]);
    }

    private static Matrix matrix(int... parts) {
        return matrix(new boolean[2][parts.length], parts);
    }

    /** States by the first character; what else is said has a role. */
    private static Key key(int mildStates, Key.Role role, int... further) {
        List<Key.Statement> mild = new ArrayList<>();
        mild.add(new Key.Statement(0, new Atoms.States(mildStates), Key.Role.DECIDING));
        for (int c : further) {
            mild.add(new Key.Statement(c, new Atoms.States(0b010), role));
        }
        Key.Statement bane = new Key.Statement(0, new Atoms.States(0b001), Key.Role.DECIDING);
        return Key.of(List.of(new Key.Couplet(
                1, OptionalInt.empty(), List.of(new Key.Lead(List.of(bane), BANE), new Key.Lead(mild, MILD)))));
    }

    private static List<PathDangers.NotRuledOut> open(Matrix matrix, Key key) {
        assertThat(PathDangers.of(matrix, key).get(BANE))
                .as("it says so itself")
                .isEmpty();
        assertThat(PathDangers.of(matrix, key)).as("each end is judged").containsKeys(BANE, MILD);
        return PathDangers.of(matrix, key).getOrDefault(MILD, List.of());
    }

    @Test
    void oneFeatureIsNotEnoughAndWhatElseToLookAtIsSaid() {
        assertThat(open(matrix(0, 0, 1, 2, 3), key(0b010, Key.Role.DECIDING)))
                .as("other parts first, three at most")
                .containsExactly(new PathDangers.NotRuledOut(0, List.of(2, 3, 4)));
        assertThat(open(matrix(0), key(0b010, Key.Role.DECIDING)))
                .containsExactly(new PathDangers.NotRuledOut(0, List.of()));
    }

    @Test
    void noSignIsNamedForWhichSomethingHadToBeHandledThatHarms() {
        Matrix plain = matrix(0, 1, 2);
        List<MatrixCharacter> characters = new ArrayList<>(plain.characters());
        characters.set(1, characters.get(1).by(Handling.CRUSH));
        characters.set(2, characters.get(2).by(Handling.CUT));
        assertThat(open(
                        Matrix.of(plain.rows(), characters, SyntheticMatrix.cells(plain)),
                        key(0b010, Key.Role.DECIDING)))
                .as("cut with gloves; never crushed, for it may harm by breathing")
                .containsExactly(new PathDangers.NotRuledOut(0, List.of(2)));
    }

    @Test
    void twoFeaturesOfTwoPartsAre() {
        assertThat(open(matrix(0, 1), key(0b010, Key.Role.SUFFICIENT, 1))).isEmpty();
        assertThat(open(matrix(0, 0), key(0b010, Key.Role.SUFFICIENT, 1)))
                .as("one part")
                .hasSize(1);
        assertThat(open(matrix(0, 1), key(0b010, Key.Role.TENDENCY, 1)))
                .as("a tendency")
                .hasSize(1);
        assertThat(open(matrix(0, 1), key(0b011, Key.Role.SUFFICIENT, 1)))
                .as("a lead that the danger may take")
                .hasSize(1);
        boolean[][] weak = {new boolean[2], {false, true}};
        assertThat(open(matrix(weak, 0, 1), key(0b010, Key.Role.SUFFICIENT, 1)))
                .as("a cell that nobody vouches for")
                .hasSize(1);
    }

    @Test
    void ofSignsOnOtherPartsTheLeastMisreadComesFirst() {
        Matrix plain = matrix(0, 1, 2, 3);
        List<MatrixCharacter> characters = new ArrayList<>(plain.characters());
        characters.set(1, characters.get(1).withMisreading(Misreading.of(0.3)));
        characters.set(3, characters.get(3).withMisreading(Misreading.of(0.2)));
        assertThat(open(
                        Matrix.of(plain.rows(), characters, SyntheticMatrix.cells(plain)),
                        key(0b010, Key.Role.DECIDING)))
                .containsExactly(new PathDangers.NotRuledOut(0, List.of(2, 3, 1)));
    }

    @ParameterizedTest(name = "lengths {0} to {1}: {2}")
    @CsvSource({"6, 9, true", "4, 9, false", "1, 9, false", "5.5, 9, true"})
    void aRangeOfTheWayExcludesADangerThatIsNeverSoLong(double low, double high, boolean excludes) {
        Matrix states = matrix(0, 1);
        List<MatrixCharacter> characters = List.of(
                states.character(0),
                MatrixCharacter.of("length", CharacterType.LENGTH, 0, 1).on(1, List.of()));
        Cell[][] cells = {{states.cell(0, 0), Cell.Numeric.range(2, 5)}, {states.cell(1, 0), Cell.Numeric.range(6, 9)}};
        Key.Statement bane = new Key.Statement(0, new Atoms.States(0b001), Key.Role.DECIDING);
        Key.Statement mild = new Key.Statement(0, new Atoms.States(0b010), Key.Role.DECIDING);
        Key.Statement length = new Key.Statement(1, Atoms.Interval.closed(low, high), Key.Role.SUFFICIENT);
        Key key = Key.of(List.of(new Key.Couplet(
                1,
                OptionalInt.empty(),
                List.of(new Key.Lead(List.of(bane), BANE), new Key.Lead(List.of(mild, length), MILD)))));
        assertThat(open(Matrix.of(states.rows(), characters, cells), key).isEmpty())
                .isEqualTo(excludes);
    }

    @Test
    void coupletsOnTheWayAddUpAndAKeyInCirclesEnds() {
        Matrix matrix = matrix(0, 1);
        Key.Statement first = new Key.Statement(0, new Atoms.States(0b010), Key.Role.DECIDING);
        Key.Statement second = new Key.Statement(1, new Atoms.States(0b010), Key.Role.DECIDING);
        Key.Statement other = new Key.Statement(1, new Atoms.States(0b101), Key.Role.DECIDING);
        Key key = Key.of(List.of(
                new Key.Couplet(
                        1,
                        OptionalInt.empty(),
                        List.of(new Key.Lead(List.of(first), new Key.ToCouplet(2)), new Key.Lead(List.of(), BANE))),
                new Key.Couplet(
                        2,
                        OptionalInt.of(1),
                        List.of(
                                new Key.Lead(List.of(second), MILD),
                                new Key.Lead(List.of(other), new Key.ToCouplet(1))))));
        assertThat(open(matrix, key)).isEmpty();
        Key alone = new Key(List.of(), MILD);
        assertThat(PathDangers.of(matrix, alone).get(MILD)).hasSize(1);
    }
}
