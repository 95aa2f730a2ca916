package org.polyclave.core.key;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.key.KeyOutcome.Generated;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.testkit.SpecimenOracle;
import org.polyclave.core.testkit.StepsOracle;

/** Characters that depend on characters that depend on others: keys, proofs and figures against enumerated specimens. */
class DependencyPropertyTest {
    private static final KeyOptions QUICK = KeyOptions.DEFAULT.withNodeBudget(50);

    private static final int CASES = 400;
    private static final List<KeyObjective> OBJECTIVES = List.of(KeyObjective.values());

    private static KeyResult generate(Matrix matrix, KeyOptions options) {
        return ((Generated) new KeyGenerator().generate(matrix, options, CancelSignal.NEVER)).result();
    }

    /** Up to four rows, some of one name; most characters depend on an earlier one; much is varying, unknown or missing. */
    private static Matrix matrix(Random random) {
        int n = 3 + random.nextInt(2);
        List<MatrixCharacter> characters = new ArrayList<>();
        for (int c = 0; c < n; c++) {
            MatrixCharacter plain = MatrixCharacter.of("c" + c, CharacterType.STATES, 2 + random.nextInt(3), c);
            List<ControllingCondition> conditions = new ArrayList<>();
            for (int tries = 0; c > 0 && tries < 2 && random.nextInt(3) > 0; tries++) {
                int on = random.nextInt(c);
                conditions.add(new ControllingCondition(
                        on, 1 + random.nextInt(characters.get(on).allStates() - 1)));
            }
            characters.add(plain.when(conditions));
        }
        int rows = 3 + random.nextInt(2);
        List<MatrixRow> list = new ArrayList<>();
        Cell[][] cells = new Cell[rows][n];
        for (int i = 0; i < rows; i++) {
            int name = i > 0 && random.nextInt(4) == 0 ? list.get(i - 1).name() : i;
            list.add(new MatrixRow("row-" + i, name, i, 1, Hazard.NONE_KNOWN));
            for (int c = 0; c < n; c++) {
                cells[i][c] = cell(characters.get(c), random);
            }
        }
        return Matrix.of(list, characters, cells);
    }

    private static Cell cell(MatrixCharacter character, Random random) {
        int kind = random.nextInt(10);
        if (kind == 0) {
            return Cell.NOT_APPLICABLE;
        }
        if (kind < 3) {
            return Cell.UNKNOWN;
        }
        int support = 1 << random.nextInt(character.stateCount());
        return Cell.Categorical.even(
                kind < 6 ? support | 1 << random.nextInt(character.stateCount()) : support, character.stateCount());
    }

    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3, 4, 5})
    void keysAreProvenWalkedAndCountedAlike(long seed) {
        for (int k = 0; k < CASES; k++) {
            Matrix matrix = matrix(new Random(seed * 100_000 + k));
            KeyOptions options = QUICK.withObjective(OBJECTIVES.get(k % OBJECTIVES.size()));
            KeyResult result = generate(matrix, options);
            String at = "case " + k;
            assertThat(result.proof().failures()).as(at).isEmpty();
            assertThat(result.proof().complete()).as(at).isTrue();
            assertThat(new SpecimenOracle(matrix, result.key()).everySpecimenArrives())
                    .as(at)
                    .isTrue();
            assertThat(result.figures().expectedSteps())
                    .as(at)
                    .isCloseTo(new StepsOracle(matrix, result.key()).expectedSteps(), within(1e-9));
        }
    }

    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3})
    void aProofAgreesWithTheWalkOnForeignKeys(long seed) {
        int refuted = 0;
        for (int k = 0; k < CASES; k++) {
            Random random = new Random(seed * 100_000 + k);
            Matrix matrix = matrix(random);
            // The key of another scoring of the same characters: well formed, and often wrong here.
            Cell[][] cells = new Cell[matrix.rowCount()][matrix.characterCount()];
            for (int i = 0; i < cells.length; i++) {
                for (int c = 0; c < cells[i].length; c++) {
                    cells[i][c] = random.nextInt(4) == 0 ? cell(matrix.character(c), random) : matrix.cell(i, c);
                }
            }
            Key key = generate(Matrix.of(matrix.rows(), matrix.characters(), cells), QUICK)
                    .key();
            Proof proof = new SupportPropagationProver().prove(matrix, key);
            boolean walks = proof.failures().stream()
                    .noneMatch(f -> f.kind() == Proof.Kind.NO_LEAD
                            || f.kind() == Proof.Kind.SEVERAL_LEADS
                            || f.kind() == Proof.Kind.WRONG_NAME);
            assertThat(proof.proven()).isEqualTo(proof.failures().isEmpty());
            refuted += walks ? 0 : 1;
            assertThat(new SpecimenOracle(matrix, key).everySpecimenArrives())
                    .as("case %d: %s", k, proof.failures())
                    .isEqualTo(walks);
        }
        assertThat(refuted).as("keys that are wrong, or the test tells nothing").isGreaterThan(CASES / 10);
    }

    /** Wings, their pattern, and the spot that the first two patterns have. */
    private static Matrix winged(Cell[][] cells) {
        MatrixCharacter wings = MatrixCharacter.of("wings", CharacterType.STATES, 2, 0);
        MatrixCharacter pattern = MatrixCharacter.of("pattern", CharacterType.STATES, 4, 1)
                .when(List.of(new ControllingCondition(0, 0b10)));
        MatrixCharacter spot = MatrixCharacter.of("spot", CharacterType.STATES, 2, 2)
                .when(List.of(new ControllingCondition(1, 0b0011)));
        List<MatrixRow> rows = new ArrayList<>();
        for (int i = 0; i < cells.length; i++) {
            rows.add(new MatrixRow("row-" + i, i, 0, 1, Hazard.NONE_KNOWN));
        }
        return Matrix.of(rows, List.of(wings, pattern, spot), cells);
    }

    /** With wings the first row has a red spot, without wings none: never a spot that is not red. */
    @Test
    void whatLiesTwoConditionsDeepExistsOrNotAsAWhole() {
        Matrix matrix = winged(new Cell[][] {
            {Cell.UNKNOWN, Cell.Categorical.single(0, 4), Cell.Categorical.single(0, 2)},
            {Cell.Categorical.single(1, 2), Cell.Categorical.single(0, 4), Cell.Categorical.single(1, 2)}
        });
        List<Key.Lead> leads = List.of(
                new Key.Lead(List.of(shown(0, 0b01)), name(0)),
                new Key.Lead(List.of(shown(2, 0b01), shown(0, 0b10)), name(0)),
                new Key.Lead(List.of(shown(2, 0b10), shown(0, 0b10)), name(1)));
        Key key = Key.of(List.of(new Key.Couplet(1, OptionalInt.empty(), leads)));
        assertThat(new SupportPropagationProver().prove(matrix, key).failures()).isEmpty();
        assertThat(new SpecimenOracle(matrix, key).everySpecimenArrives()).isTrue();
    }

    private static Key.Statement shown(int character, int states) {
        return new Key.Statement(character, new Atoms.States(states), Key.Role.DECIDING);
    }

    private static Key.Target name(int row) {
        return new Key.ToRows(List.of(row), Key.Reason.NONE);
    }

    /** A wingless specimen has no pattern, and so no spot either. */
    @Test
    void whatDependsOnAMissingPartIsMissingToo() {
        Matrix matrix = winged(new Cell[][] {
            {Cell.UNKNOWN, Cell.Categorical.even(0b0110, 4), Cell.UNKNOWN},
            {Cell.Categorical.single(1, 2), Cell.Categorical.single(2, 4), Cell.Categorical.single(0, 2)},
            {Cell.UNKNOWN, Cell.Categorical.single(3, 4), Cell.Categorical.single(0, 2)}
        });
        KeyResult result = generate(matrix, QUICK);
        assertThat(result.proof().proven()).isTrue();
        assertThat(result.key().couplets())
                .flatExtracting(Key.Couplet::leads)
                .filteredOn(l -> l.to() instanceof Key.ToRows)
                .allSatisfy(l -> assertThat(((Key.ToRows) l.to()).rows()).contains(0, 2));
        assertThat(new SpecimenOracle(matrix, result.key()).everySpecimenArrives())
                .isTrue();
    }

    /** Seven parts that may be missing, each with a colour of its own. */
    @Test
    void manyVaryingControllersInOneRow() {
        int parts = 7;
        List<MatrixCharacter> characters = new ArrayList<>();
        Cell[][] cells = new Cell[2][2 * parts];
        for (int p = 0; p < parts; p++) {
            characters.add(MatrixCharacter.of("part" + p, CharacterType.STATES, 2, p));
            cells[0][p] = Cell.Categorical.even(0b11, 2);
            cells[1][p] = Cell.Categorical.single(1, 2);
        }
        for (int p = 0; p < parts; p++) {
            characters.add(MatrixCharacter.of("colour" + p, CharacterType.STATES, 3, parts + p)
                    .when(List.of(new ControllingCondition(p, 0b10))));
            cells[0][parts + p] = Cell.Categorical.single(0, 3);
            cells[1][parts + p] = Cell.Categorical.single(1, 3);
        }
        List<MatrixRow> rows = List.of(
                new MatrixRow("aa", 0, 0, 1, Hazard.NONE_KNOWN), new MatrixRow("bb", 1, 0, 1, Hazard.NONE_KNOWN));
        Matrix matrix = Matrix.of(rows, characters, cells);
        KeyResult result = generate(matrix, QUICK);
        assertThat(result.proof().failures()).isEmpty();
        assertThat(result.proof().complete()).isTrue();
        int last = 2 * parts - 1;
        Key.Lead first = new Key.Lead(
                List.of(new Key.Statement(last, new Atoms.States(0b010), Key.Role.DECIDING)),
                new Key.ToRows(List.of(0, 1), Key.Reason.INSEPARABLE));
        Key.Lead second = new Key.Lead(
                List.of(new Key.Statement(last, new Atoms.States(0b100), Key.Role.DECIDING)),
                new Key.ToRows(List.of(0), Key.Reason.NONE));
        Key without = Key.of(List.of(new Key.Couplet(1, java.util.OptionalInt.empty(), List.of(first, second))));
        assertThat(new SupportPropagationProver().prove(matrix, without).failures())
                .as("no lead for the first colour")
                .extracting(Proof.Failure::kind)
                .contains(Proof.Kind.NO_LEAD);
    }
}
