package org.polyclave.core.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.check.Finding.Kind;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.core.testkit.SyntheticMatrix;

/** Planted slips are found, clean matrices are not bothered, and what can be enumerated agrees with its definition. */
class MatrixCheckTest {
    private static final Cell U = Cell.UNKNOWN;
    private static final Cell NA = Cell.NOT_APPLICABLE;

    private static List<MatrixRow> rows(int count) {
        return IntStream.range(0, count)
                .mapToObj(i -> new MatrixRow("row-" + i, i, 0, 1, Hazard.NONE_KNOWN))
                .toList();
    }

    private static MatrixCharacter states(int index, int count) {
        return MatrixCharacter.of("c" + index, CharacterType.STATES, count, index);
    }

    private static MatrixCharacter length(int index) {
        return MatrixCharacter.of("c" + index, CharacterType.LENGTH, 0, index);
    }

    /** Columns of states, one digit a row; {@code ?} unknown, {@code -} not applicable. */
    private static Cell[][] cells(int stateCount, String... columns) {
        Cell[][] cells = new Cell[columns[0].length()][columns.length];
        for (int c = 0; c < columns.length; c++) {
            for (int i = 0; i < columns[c].length(); i++) {
                char at = columns[c].charAt(i);
                cells[i][c] = at == '?' ? U : at == '-' ? NA : Cell.Categorical.single(at - '0', stateCount);
            }
        }
        return cells;
    }

    private static List<Finding> check(int stateCount, String... columns) {
        List<MatrixCharacter> characters = IntStream.range(0, columns.length)
                .mapToObj(c -> states(c, stateCount))
                .toList();
        return MatrixCheck.of(Matrix.of(rows(columns[0].length()), characters, cells(stateCount, columns)))
                .findings();
    }

    private static List<Kind> kinds(List<Finding> findings) {
        return findings.stream().map(Finding::kind).distinct().toList();
    }

    @Test
    void aCleanMatrixIsNotBothered() {
        assertThat(check(3, "001122", "012012", "0120?1")).isEmpty();
    }

    @Test
    void statesThatNobodyShowsAndCharactersThatSayNothing() {
        List<Finding> findings = check(3, "001101", "000000");
        assertThat(findings)
                .extracting(Finding::kind, Finding::character, Finding::state)
                .containsExactly(
                        tuple(Kind.UNUSED_STATE, 0, 2),
                        tuple(Kind.UNUSED_STATE, 1, 1),
                        tuple(Kind.UNUSED_STATE, 1, 2),
                        tuple(Kind.NEVER_VARIES, 1, -1),
                        tuple(Kind.SAME_ROWS, -1, -1),
                        tuple(Kind.SAME_ROWS, -1, -1),
                        tuple(Kind.SAME_ROWS, -1, -1),
                        tuple(Kind.SAME_ROWS, -1, -1));
    }

    @Test
    void aStateThatIsOnlyMistakenIsUsed() {
        Cell mistaken = new Cell.Categorical(1, 3, new double[] {1, 0});
        Cell[][] cells = {{mistaken}, {Cell.Categorical.single(0, 2)}};
        assertThat(kinds(MatrixCheck.of(Matrix.of(rows(2), List.of(states(0, 2)), cells))
                        .findings()))
                .containsExactly(Kind.SEPARATES_NOTHING);
    }

    @Test
    void onlyRowsOfDifferentTaxaAreToldForBeingTheSame() {
        MatrixRow male = new MatrixRow("male", 0, 0, 1, Hazard.NONE_KNOWN);
        MatrixRow female = new MatrixRow("female", 0, 0, 1, Hazard.NONE_KNOWN);
        MatrixRow other = new MatrixRow("other", 1, 0, 1, Hazard.NONE_KNOWN);
        MatrixRow apart = new MatrixRow("apart", 2, 0, 1, Hazard.NONE_KNOWN);
        Matrix matrix = Matrix.of(
                List.of(male, female, other, apart),
                List.of(states(0, 2), states(1, 2)),
                cells(2, "0001", "?" + "??1"));
        assertThat(MatrixCheck.of(matrix).findings().stream().filter(f -> f.kind() == Kind.SAME_ROWS))
                .extracting(Finding::row, Finding::otherRow)
                .containsExactly(tuple(0, 2));
        Matrix nothing = Matrix.of(rows(3), List.of(states(0, 2)), cells(2, "??1"));
        assertThat(kinds(MatrixCheck.of(nothing).findings()))
                .as("two rows of which nothing is known are not duplicates")
                .doesNotContain(Kind.SAME_ROWS);
    }

    @Test
    void charactersThatGoTogetherAreTold() {
        List<Finding> findings = check(2, "00110101", "11001010", "01010101");
        assertThat(findings.stream().filter(f -> f.kind() == Kind.IMPLIED))
                .containsExactly(new Finding(Kind.IMPLIED, -1, -1, 0, 1, -1, 8));
    }

    @Test
    void anExceptionAmongManyIsALikelySlip() {
        List<Finding> findings = check(2, "000000011111110", "111111100000000");
        assertThat(findings.stream().filter(f -> f.kind() == Kind.NEARLY_IMPLIED))
                .containsExactly(new Finding(Kind.NEARLY_IMPLIED, 14, -1, 0, 1, 0, 15));
        assertThat(kinds(check(2, "00000110", "11111001")))
                .as("too few rows, or too many exceptions")
                .doesNotContain(Kind.NEARLY_IMPLIED);
        assertThat(kinds(check(2, "0000000111111100", "1111111000000000"))).doesNotContain(Kind.NEARLY_IMPLIED);
    }

    @Test
    void aCharacterAndWhatItControlsAreNotComparedButTheirCellsAre() {
        List<MatrixCharacter> characters =
                List.of(states(0, 2), states(1, 2).when(List.of(new ControllingCondition(0, 0b01))));
        Matrix matrix = Matrix.of(rows(8), characters, cells(2, "00001111", "0101--0-"));
        assertThat(MatrixCheck.of(matrix).findings().stream()
                        .filter(f -> f.kind().name().contains("APPLICABLE")))
                .containsExactly(Finding.of(Kind.SCORED_BUT_NOT_APPLICABLE, 6, 1));
        Matrix missing = Matrix.of(rows(8), characters, cells(2, "0000111?", "01-1----"));
        assertThat(MatrixCheck.of(missing).findings().stream()
                        .filter(f -> f.kind().name().contains("APPLI")))
                .containsExactly(Finding.of(Kind.NOT_APPLICABLE_BUT_APPLIES, 2, 1));
        assertThat(kinds(MatrixCheck.of(matrix).findings())).doesNotContain(Kind.IMPLIED);
    }

    @Test
    void rangesThatEndWhereOthersBegin() {
        Cell[][] cells = {
            {Cell.Numeric.range(2, 5)},
            {Cell.Numeric.range(5, 9)},
            {Cell.Numeric.range(1, 5)},
            {Cell.Numeric.range(11, 11)}
        };
        assertThat(MatrixCheck.of(Matrix.of(rows(4), List.of(length(0)), cells)).findings())
                .containsExactly(new Finding(Kind.RANGES_TOUCH, 0, 1, 0, -1, -1, 2));
        cells[1][0] = Cell.Numeric.range(5.1, 9);
        assertThat(MatrixCheck.of(Matrix.of(rows(4), List.of(length(0)), cells)).findings())
                .isEmpty();
    }

    @Test
    void whatIsMostlyUnknownIsTold() {
        List<Finding> findings = check(2, "01?1", "10?1", "0???");
        assertThat(findings.stream().filter(f -> f.kind().name().startsWith("UNKNOWN")))
                .containsExactly(
                        new Finding(Kind.UNKNOWN_ROW, 2, -1, -1, -1, -1, 1),
                        new Finding(Kind.UNKNOWN_CHARACTER, -1, -1, 2, -1, -1, 0.75));
    }

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 40);
    }

    /** Against the definition, pair by pair. */
    @ParameterizedTest
    @MethodSource("seeds")
    void whatSeparatesNothingIsWhatStrictSeparationSays(long seed) {
        Matrix matrix = new SyntheticMatrix(7, 9, 3, 0.5, 0.2, 0.4, 0, false).generate(seed);
        StrictSeparation separation = new StrictSeparation(matrix);
        List<Integer> told = new ArrayList<>();
        List<Integer> silent = new ArrayList<>();
        for (Finding finding : MatrixCheck.of(matrix).findings()) {
            if (finding.kind() == Kind.SEPARATES_NOTHING || finding.kind() == Kind.NEVER_VARIES) {
                told.add(finding.character());
            }
        }
        for (int c = 0; c < matrix.characterCount(); c++) {
            boolean separates = false;
            int scored = 0;
            for (int a = 0; a < matrix.rowCount(); a++) {
                Cell cell = matrix.cell(a, c);
                scored += cell instanceof Cell.Categorical || cell instanceof Cell.Numeric ? 1 : 0;
                for (int b = 0; b < a; b++) {
                    separates |= separation.separates(a, b, c);
                }
            }
            if (!separates && scored > 1) {
                silent.add(c);
            }
        }
        assertThat(told).as("seed %d", seed).containsExactlyInAnyOrderElementsOf(silent);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void findingsAreDeterministicAndNameWhatIsThere(long seed) {
        Matrix matrix = new SyntheticMatrix(30, 20, 2, 0.05, 0.1, 0.3, 0, true).generate(seed);
        List<Finding> findings = MatrixCheck.of(matrix).findings();
        assertThat(findings).isEqualTo(MatrixCheck.of(matrix).findings());
        for (Finding finding : findings) {
            assertThat(finding.row()).isBetween(-1, matrix.rowCount() - 1);
            assertThat(finding.character()).isBetween(-1, matrix.characterCount() - 1);
            if (finding.kind() == Kind.IMPLIED) {
                for (int a = 0; a < matrix.rowCount(); a++) {
                    assertThat(goTogether(matrix, a, finding)).isTrue();
                }
            }
        }
    }

    /** Small changes, one after the other, with dependent characters, alike rows and bonds that come and go. */
    @ParameterizedTest
    @MethodSource("seeds")
    void whatIsKeptEqualsACheckFromScratch(long seed) {
        Random random = new Random(seed);
        SyntheticMatrix kind = new SyntheticMatrix(14, 6, 2, 0.05, 0.2, 0.3, 0.4, true);
        Matrix matrix = kind.generate(seed);
        MatrixCheck kept = MatrixCheck.of(matrix);
        for (int step = 0; step < 12; step++) {
            Set<Integer> scored = new HashSet<>();
            for (int n = random.nextInt(3); n >= 0; n--) {
                int c = random.nextInt(matrix.characterCount());
                scored.add(c);
                matrix = step % 3 == 0 ? likeAnotherRow(matrix, c, random) : unknownSomewhere(matrix, c, random);
            }
            kept = kept.after(matrix, scored);
            assertThat(kept.findings())
                    .as("seed %d, step %d", seed, step)
                    .isEqualTo(MatrixCheck.of(matrix).findings());
        }
    }

    private static Matrix likeAnotherRow(Matrix matrix, int c, Random random) {
        Cell other = matrix.cell(random.nextInt(matrix.rowCount()), c);
        return matrix.with(random.nextInt(matrix.rowCount()), c, other);
    }

    private static Matrix unknownSomewhere(Matrix matrix, int c, Random random) {
        return matrix.with(random.nextInt(matrix.rowCount()), c, U);
    }

    @Test
    void rowsBecomeAlikeByOneChangedCell() {
        List<MatrixCharacter> characters = List.of(states(0, 2), states(1, 2));
        Matrix apart = Matrix.of(rows(3), characters, cells(2, "011", "001"));
        MatrixCheck before = MatrixCheck.of(apart);
        MatrixCheck after = before.after(apart.with(1, 1, apart.cell(2, 1)), Set.of(1));
        assertThat(kinds(before.findings())).doesNotContain(Kind.SAME_ROWS);
        assertThat(kinds(after.findings())).contains(Kind.SAME_ROWS);
    }

    /** Whether no other row pairs this row's state of one character with another state of the other. */
    private static boolean goTogether(Matrix matrix, int row, Finding implied) {
        for (int other = 0; other < matrix.rowCount(); other++) {
            int a = single(matrix.cell(row, implied.character()));
            int b = single(matrix.cell(row, implied.otherCharacter()));
            int c = single(matrix.cell(other, implied.character()));
            int d = single(matrix.cell(other, implied.otherCharacter()));
            if (a != 0 && b != 0 && c != 0 && d != 0 && (a == c) != (b == d)) {
                return false;
            }
        }
        return true;
    }

    private static int single(Cell cell) {
        return cell instanceof Cell.Categorical shown && Integer.bitCount(shown.readable()) == 1 ? shown.readable() : 0;
    }
}
