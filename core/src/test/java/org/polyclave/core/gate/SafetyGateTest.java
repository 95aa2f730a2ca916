package org.polyclave.core.gate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.polyclave.core.testkit.SyntheticMatrix.cells;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.gate.SafetyGate.Kind;
import org.polyclave.core.gate.SafetyGate.Unmet;
import org.polyclave.core.margin.CharacterLooks;
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
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.statistics.Measured;
import org.polyclave.core.testkit.MarginOracle;

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
    void aCharacterCountsInMonthsInWhichBothShowIt() {
        List<MatrixCharacter> five = new ArrayList<>();
        for (int p = 0; p < 5; p++) {
            five.add(misread(on("p" + p, p), 0.03));
        }
        Matrix plain = matrix(EATEN, five);
        assertThat(kinds(plain)).isEmpty();
        for (int row = 0; row < 2; row++) {
            int[][] own = new int[2][5];
            Arrays.fill(own[row], 1, 5, JUNE);
            Matrix seasonal = Matrix.of(plain.rows(), five, cells(plain), new boolean[2][5], own);
            assertThat(SafetyGate.unmet(seasonal, YEAR))
                    .as("row %d shows four of five only in June", row)
                    .extracting(Unmet::kind, Unmet::months)
                    .containsExactly(tuple(Kind.TOO_FEW, YEAR & ~JUNE));
        }
    }

    @Test
    void aRangeOfFewIndividualsMayReachFurther() {
        MatrixCharacter stem = misread(on("stem", 1), 0.03);
        MatrixCharacter width = misread(MatrixCharacter.of("width", CharacterType.LENGTH, 0, 0), 0.03);
        for (int individuals : new int[] {3, 40}) {
            Cell[][] cells = {
                {
                    new Cell.Numeric(8, 9, 11, 12, Optional.of(new Measured(individuals, 10, 1))),
                    Cell.Categorical.single(0, 2)
                },
                {
                    new Cell.Numeric(14, 15, 17, 18, Optional.of(new Measured(individuals, 16, 1))),
                    Cell.Categorical.single(1, 2)
                }
            };
            List<MatrixRow> rows = matrix(EATEN, List.of(stem)).rows();
            List<Kind> found = kinds(Matrix.of(rows, List.of(width.on(0, List.of()), stem), cells));
            assertThat(found.contains(Kind.TOO_FEW))
                    .as("%d individuals", individuals)
                    .isEqualTo(individuals < 40);
        }
    }

    @Test
    void namesAreComparedAndAHarmlessRowOfADangerousNameNeedNotBeDistinguished() {
        List<MatrixCharacter> one = List.of(misread(on("leaf", 0), 0.03));
        Cell[][] cells = {
            {Cell.Categorical.single(0, 2)}, {Cell.Categorical.single(1, 2)}, {Cell.Categorical.single(1, 2)}
        };
        List<MatrixRow> rows = List.of(
                new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS, EATEN),
                new MatrixRow("dwale", 1, 1, 1, Hazard.SERIOUS, EATEN),
                new MatrixRow("dwale, seedling", 1, 1, 1, Hazard.NONE_KNOWN, Harm.NONE));
        assertThat(SafetyGate.unmet(Matrix.of(rows, one, cells), YEAR))
                .extracting(Unmet::kind, Unmet::danger, Unmet::other)
                .containsExactly(tuple(Kind.JOINED, 1, 2));
    }

    /** Independent of the rule: month by month, features counted, and what they can come to written from its definition. */
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3})
    void theKindFollowsFromTheBestThatANoviceCanSeeInEachMonth(long seed) {
        Map<Kind, Integer> times = new EnumMap<>(Kind.class);
        for (int k = 0; k < 300; k++) {
            Random random = new Random(1000 * seed + k);
            Matrix matrix = random(random);
            int months = random.nextInt(3) == 0 ? 1 + random.nextInt(YEAR) : YEAR;
            List<Unmet> found = SafetyGate.unmet(matrix, months);
            assertThat(found).extracting(Unmet::danger).isSorted();
            for (int h = 0; h < 2; h++) {
                for (int j = 2; j < matrix.rowCount(); j++) {
                    int danger = h;
                    int other = j;
                    Map<Kind, Worst> expected = expected(matrix, h, j, months);
                    Map<Kind, Worst> actual = new EnumMap<>(Kind.class);
                    found.stream()
                            .filter(u -> u.danger() == danger && u.other() == other)
                            .forEach(u -> actual.put(u.kind(), new Worst(u.months(), u.features(), u.characters())));
                    assertThat(actual).as("case %d, rows %d and %d", k, h, j).isEqualTo(expected);
                    expected.keySet().forEach(kind -> times.merge(kind, 1, Integer::sum));
                    assertThat(SafetyGate.separating(matrix, h, j)).isEqualTo(separating(matrix, h, j, 0));
                }
            }
        }
        assertThat(times).as("or it tells little").containsOnlyKeys(Kind.TOO_FEW, Kind.OUT_OF_REACH, Kind.HARD);
        assertThat(times.values()).allMatch(n -> n > 5);
    }

    /** @param characters of the first of the months with the fewest features */
    private record Worst(int months, int features, List<Integer> characters) {}

    /** Two dangers and some harmless rows; every cell has months of its own. */
    private static Matrix random(Random random) {
        int characters = 2 + random.nextInt(14);
        List<MatrixCharacter> kinds = new ArrayList<>();
        for (int c = 0; c < characters; c++) {
            // Of some nobody learns anything; whoever looks at these first never gets to the others.
            double rate = random.nextInt(2) == 0 ? 0.3 : 0.02 + random.nextInt(24) / 100.0;
            kinds.add(misread(on("c" + c, random.nextInt(4)), rate));
        }
        int n = 3 + random.nextInt(3);
        Cell[][] cells = new Cell[n][characters];
        int[][] months = new int[n][characters];
        List<MatrixRow> rows = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            Hazard hazard = i > 1 ? Hazard.NONE_KNOWN : i == 0 ? Hazard.SERIOUS : Hazard.LIFE_THREATENING;
            rows.add(new MatrixRow("r" + i, i, i, 1, hazard, i < 2 ? EATEN : Harm.NONE));
            for (int c = 0; c < characters; c++) {
                cells[i][c] = Cell.Categorical.single((i < 2 ? 0 : 1) ^ (random.nextInt(4) == 0 ? 1 : 0), 2);
                months[i][c] = random.nextInt(4) == 0 ? JUNE | 1 << random.nextInt(12) : YEAR;
            }
        }
        return Matrix.of(rows, kinds, cells, new boolean[n][characters], months);
    }

    private static List<Integer> separating(Matrix matrix, int danger, int other, int month) {
        List<Integer> found = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            boolean seen = (matrix.months(danger, c) & matrix.months(other, c) & month) == month;
            if (seen && !matrix.cell(danger, c).equals(matrix.cell(other, c))) {
                found.add(c);
            }
        }
        return found;
    }

    private static Map<Kind, Worst> expected(Matrix matrix, int danger, int other, int months) {
        Map<Kind, Worst> worst = new EnumMap<>(Kind.class);
        for (int m = 1; m <= YEAR; m <<= 1) {
            if ((months & m) != 0) {
                List<Integer> seen = separating(matrix, danger, other, m);
                int features = (int) Math.min(
                        2,
                        seen.stream()
                                .filter(c -> novice(matrix, c) < 0.2)
                                .map(c -> matrix.character(c).organ())
                                .distinct()
                                .count());
                int month = m;
                kind(matrix, danger, other, seen, features)
                        .ifPresent(kind -> worst.merge(
                                kind,
                                new Worst(month, features, seen),
                                (a, b) -> new Worst(
                                        a.months() | b.months(),
                                        Math.min(a.features(), b.features()),
                                        b.features() < a.features() ? b.characters() : a.characters())));
            }
        }
        return worst;
    }

    private static double novice(Matrix matrix, int character) {
        return matrix.character(character).misreading().novice();
    }

    /** How many characters of its part are misread less than it. */
    private static long turn(Matrix matrix, int character) {
        return matrix.characters().stream()
                .filter(o -> o.organ() == matrix.character(character).organ())
                .filter(o -> o.misreading().novice() < novice(matrix, character)
                        || (o.misreading().novice() == novice(matrix, character)
                                && matrix.characters().indexOf(o) < character))
                .count();
    }

    private static Optional<Kind> kind(Matrix matrix, int danger, int other, List<Integer> seen, int features) {
        if (features < 2) {
            return Optional.of(Kind.TOO_FEW);
        }
        List<CharacterLooks> looked = seen.stream()
                .sorted(Comparator.comparing((Integer c) -> turn(matrix, c)).thenComparing(c -> novice(matrix, c)))
                .limit(8)
                .map(c -> new CharacterLooks(
                        c,
                        Collections.nCopies(
                                4,
                                new Look(
                                        new Observation.Seen(((Cell.Categorical) matrix.cell(other, c)).support()),
                                        Certainty.SURE)),
                        false))
                .toList();
        double needed = matrix.row(danger).hazard() == Hazard.SERIOUS ? 150 : 300;
        double best = new MarginOracle(matrix, Observer.NOVICE).share(danger, other, looked);
        return best < needed
                ? Optional.of(Kind.OUT_OF_REACH)
                : best < 64 * needed ? Optional.of(Kind.HARD) : Optional.empty();
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
