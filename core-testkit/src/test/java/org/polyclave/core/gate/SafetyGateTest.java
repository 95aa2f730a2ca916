package org.polyclave.core.gate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.gate.SafetyGate.Kind;
import org.polyclave.core.gate.SafetyGate.Unmet;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Handling.Advice;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.Misreading;

/** What an edition may claim: each clause of the gate. */
class SafetyGateTest {
    private static final int YEAR = MatrixCharacter.ALL_MONTHS;
    private static final int JUNE = 1 << 5;
    private static final Harm EATEN = new Harm(false, Harm.EATING, 0);

    private static MatrixCharacter on(String id, int part) {
        return MatrixCharacter.of(id, CharacterType.STATES, 2, part).on(part, List.of());
    }

    private static MatrixCharacter misread(MatrixCharacter character, double novice) {
        return character.withMisreading(new Misreading(novice / 2, novice, List.of(), List.of()));
    }

    private static Matrix matrix(Harm harm, List<MatrixCharacter> characters) {
        return matrix(harm, characters, 1);
    }

    /** A dangerous row and a harmless one, unlike in everything; the harmless one has this name. */
    private static Matrix matrix(Harm harm, List<MatrixCharacter> characters, int name) {
        return matrix(harm, characters, name, 1);
    }

    /** The same with several harmless rows, all alike. */
    private static Matrix matrix(Harm harm, List<MatrixCharacter> characters, int name, int harmless) {
        Cell[][] cells = new Cell[1 + harmless][characters.size()];
        List<MatrixRow> rows = new ArrayList<>();
        for (int i = 0; i < cells.length; i++) {
            rows.add(
                    i == 0
                            ? new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS, harm)
                            : new MatrixRow("mild" + i, name + i - 1, 1, 1, Hazard.NONE_KNOWN, Harm.NONE));
            for (int c = 0; c < characters.size(); c++) {
                cells[i][c] = Cell.Categorical.single(i == 0 ? 0 : 1, 2);
            }
        }
        return Matrix.of(rows, characters, cells);
    }

    private static List<Kind> kinds(Matrix matrix) {
        return SafetyGate.unmet(matrix, YEAR).stream().map(Unmet::kind).toList();
    }

    @Test
    void twoCharactersOnTwoPartsInEveryMonth() {
        MatrixCharacter leaf = misread(on("leaf", 0), 0.03);
        MatrixCharacter margin = misread(on("margin", 0), 0.03);
        MatrixCharacter stem = misread(on("stem", 1), 0.03);
        MatrixCharacter ligule = misread(on("ligule", 2).on(2, List.of(0)), 0.03);
        MatrixCharacter flower = misread(
                new MatrixCharacter(
                        "flower", CharacterType.STATES, 2, List.of(), 3, 0, 3, 1, 0, 0.05, JUNE, false, true),
                0.03);
        assertThat(kinds(matrix(EATEN, List.of(leaf, stem)))).doesNotContain(Kind.TOO_FEW, Kind.OUT_OF_REACH);
        assertThat(kinds(matrix(EATEN, List.of(leaf, margin)))).containsExactly(Kind.TOO_FEW);
        assertThat(kinds(matrix(EATEN, List.of(leaf, ligule)))).containsExactly(Kind.TOO_FEW);
        assertThat(kinds(matrix(EATEN, List.of(misread(leaf, 0.2), stem)))).containsExactly(Kind.TOO_FEW);
        assertThat(kinds(matrix(EATEN, List.of(leaf, stem.withAbsence(0b10)))))
                .as("what the harmless one lacks")
                .containsExactly(Kind.TOO_FEW);
        assertThat(SafetyGate.unmet(matrix(EATEN, List.of(leaf, flower)), YEAR))
                .filteredOn(u -> u.kind() == Kind.TOO_FEW)
                .extracting(Unmet::months, Unmet::features)
                .containsExactly(tuple(YEAR & ~JUNE, 1));
        assertThat(SafetyGate.unmet(matrix(EATEN, List.of(leaf, flower)), JUNE))
                .noneMatch(u -> u.kind().isBlocking());
    }

    @Test
    void whatIsMisreadTooOftenNeverReaches() {
        List<MatrixCharacter> poor = List.of(misread(on("a", 0), 0.19), misread(on("b", 1), 0.19));
        assertThat(kinds(matrix(EATEN, poor))).as("one thing beside it").containsExactly(Kind.HARD);
        assertThat(kinds(matrix(EATEN, poor, 1, 9))).as("one of nine").containsOnly(Kind.OUT_OF_REACH);
        List<MatrixCharacter> four = new ArrayList<>(poor);
        four.add(misread(on("c", 2), 0.05));
        four.add(misread(on("d", 3), 0.05));
        assertThat(kinds(matrix(EATEN, four))).doesNotContain(Kind.OUT_OF_REACH, Kind.TOO_FEW);
        List<MatrixCharacter> many = new ArrayList<>(four);
        for (int p = 4; p < 7; p++) {
            many.add(misread(on("p" + p, p), 0.03));
        }
        assertThat(kinds(matrix(EATEN, many))).as("with much to spare").isEmpty();
    }

    @Test
    void aStopThatJoinsADangerAndAHarmlessTaxonIsNeverMet() {
        List<MatrixCharacter> two = List.of(misread(on("a", 0), 0.03), misread(on("b", 1), 0.03));
        assertThat(kinds(matrix(EATEN, two, 0))).containsExactly(Kind.JOINED);
    }

    @Test
    void handlingCountsWhereTheRoutesAllowIt() {
        MatrixCharacter leaf = misread(on("leaf", 0), 0.03);
        MatrixCharacter twig = misread(on("twig", 1), 0.03);
        assertThat(kinds(matrix(EATEN, List.of(leaf, twig.by(Handling.CUT)))))
                .as("gloves and washing suffice")
                .doesNotContain(Kind.TOO_FEW);
        assertThat(kinds(matrix(new Harm(true, Harm.SKIN, 0), List.of(leaf, twig.by(Handling.TOUCH)))))
                .as("nobody handles what bites")
                .containsExactly(Kind.TOO_FEW);
        assertThat(kinds(matrix(new Harm(false, Harm.BREATHING, 0), List.of(leaf, twig.by(Handling.CRUSH)))))
                .containsExactly(Kind.TOO_FEW);
    }

    @ParameterizedTest
    @CsvSource({
        "NONE, SERIOUS, FREELY",
        "CUT, NONE_KNOWN, FREELY",
        "SMELL, NONE_KNOWN, FREELY",
        "TOUCH, CAUTION, PROTECTED",
        "CRUSH, CAUTION, PROTECTED",
        "DIG, SERIOUS, PROTECTED",
        "CUT, LIFE_THREATENING, PROTECTED",
        "SMELL, SERIOUS, NEVER",
        "CRUSH, NOT_ASSESSED, NEVER",
        "TOUCH, NOT_ASSESSED, PROTECTED"
    })
    void aHazardThatDoesNotSayItsRouteHasAll(Handling handling, Hazard hazard, Advice advice) {
        assertThat(handling.advice(Harm.of(hazard))).isEqualTo(advice);
    }
}
