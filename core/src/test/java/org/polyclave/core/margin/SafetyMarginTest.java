package org.polyclave.core.margin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.polyclave.core.testkit.SyntheticMatrix.cells;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.Misreading;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.testkit.MarginOracle;
import org.polyclave.core.testkit.ReaderHabits;
import org.polyclave.core.testkit.SafetyFamilies;
import org.polyclave.core.testkit.SafetySimulation;

/** When a danger is ruled out: against the definition, clause by clause at its limits, and by readers who misread. */
class SafetyMarginTest {
    /** Row 0 is dangerous; row 1 differs in all characters, each on a part of its own and misread in 3 of 100. */
    private static Matrix pair(int characters, Hazard hazard) {
        List<MatrixCharacter> kinds = new ArrayList<>();
        Cell[][] cells = new Cell[2][characters];
        for (int c = 0; c < characters; c++) {
            kinds.add(MatrixCharacter.of("c" + c, CharacterType.STATES, 2, c)
                    .withMisreading(new Misreading(0.03, 0.03, List.of(), List.of())));
            cells[0][c] = Cell.Categorical.single(0, 2);
            cells[1][c] = Cell.Categorical.single(1, 2);
        }
        return Matrix.of(
                List.of(new MatrixRow("bane", 0, 0, 1, hazard), new MatrixRow("mild", 1, 1, 1, Hazard.NONE_KNOWN)),
                kinds,
                cells);
    }

    private static CharacterLooks saw(int character, int state, int times, Certainty certainty) {
        return new CharacterLooks(
                character, Collections.nCopies(times, new Look(new Observation.Seen(1 << state), certainty)), false);
    }

    private static CharacterLooks against(int character, int times) {
        return saw(character, 1, times, Certainty.SURE);
    }

    private static SafetyMargin.Judgement judge(Matrix matrix, CharacterLooks... looked) {
        SafetyMargin margin = new SafetyMargin(matrix, Observer.NOVICE);
        return margin.judge(0, 1, margin.weighed(List.of(looked)));
    }

    @Test
    void twoCharactersOnTwoPartsAndLooksEnough() {
        Matrix matrix = pair(6, Hazard.SERIOUS);
        assertThat(judge(matrix).ruledOut()).isFalse();
        assertThat(judge(matrix, against(0, 4)).ruledOut())
                .as("one character, however often")
                .isFalse();
        assertThat(judge(matrix, against(0, 1), against(1, 1)).ruledOut())
                .as("two looks")
                .isEqualTo(judge(matrix, against(0, 1), against(1, 1)).support() >= 150);
        assertThat(judge(matrix, against(0, 2), against(1, 2)).ruledOut()).isTrue();
        assertThat(judge(matrix, against(0, 2), against(1, 2)).against()).containsExactly(0, 1);
    }

    @Test
    void aLifeThreateningDangerTakesTwiceAsMuch() {
        assertThat(judge(pair(3, Hazard.SERIOUS)).needed()).isEqualTo(150);
        assertThat(judge(pair(3, Hazard.LIFE_THREATENING)).needed()).isEqualTo(300);
        boolean found = false;
        for (int misread = 1; misread < 30; misread++) {
            double rate = misread / 100.0;
            List<MatrixCharacter> kinds = pair(2, Hazard.SERIOUS).characters().stream()
                    .map(c -> c.withMisreading(new Misreading(rate, rate, List.of(), List.of())))
                    .toList();
            for (int looks = 1; looks <= 4; looks++) {
                CharacterLooks[] seen = {against(0, looks), against(1, looks)};
                SafetyMargin.Judgement serious = judge(with(pair(2, Hazard.SERIOUS), kinds), seen);
                SafetyMargin.Judgement deadly = judge(with(pair(2, Hazard.LIFE_THREATENING), kinds), seen);
                assertThat(serious.support()).isEqualTo(deadly.support());
                assertThat(serious.ruledOut()).isEqualTo(serious.support() >= 150);
                assertThat(deadly.ruledOut()).isEqualTo(deadly.support() >= 300);
                found |= serious.ruledOut() && !deadly.ruledOut();
            }
        }
        assertThat(found).as("a case between the two").isTrue();
    }

    private static Matrix with(Matrix matrix, List<MatrixCharacter> kinds) {
        Cell[][] cells = new Cell[matrix.rowCount()][kinds.size()];
        for (int i = 0; i < cells.length; i++) {
            for (int c = 0; c < kinds.size(); c++) {
                cells[i][c] = matrix.cell(i, c);
            }
        }
        return Matrix.of(matrix.rows(), kinds, cells);
    }

    @Test
    void partsThatLieInOneAnotherAreOne() {
        Matrix apart = pair(3, Hazard.SERIOUS);
        List<MatrixCharacter> kinds = new ArrayList<>(apart.characters());
        kinds.set(1, kinds.get(1).on(1, List.of(0)));
        Matrix nested = with(apart, kinds);
        CharacterLooks[] two = {against(0, 4), against(1, 4)};
        assertThat(judge(apart, two).ruledOut()).isTrue();
        assertThat(judge(nested, two).ruledOut()).as("the ligule of a leaf").isFalse();
        assertThat(judge(nested, two).support())
                .as("what misleads in one misleads in both")
                .isLessThan(judge(apart, two).support() / 4);
        assertThat(judge(nested, against(0, 4), against(1, 4), against(2, 4)).ruledOut())
                .isTrue();
        kinds.set(1, kinds.get(1).on(0, List.of()));
        assertThat(judge(with(apart, kinds), two).ruledOut()).as("one part").isFalse();
    }

    @Test
    void whatMayNotCountNeverCountsAgainstADangerButMaySpeakForIt() {
        Matrix matrix = pair(5, Hazard.SERIOUS);
        CharacterLooks[] enough = {against(0, 3), against(1, 3)};
        double support = judge(matrix, enough).support();
        List<MatrixCharacter> absence = new ArrayList<>(matrix.characters());
        absence.set(1, absence.get(1).withAbsence(0b10));
        assertThat(judge(with(matrix, absence), enough).ruledOut())
                .as("an absence")
                .isFalse();
        CharacterLooks rough = new CharacterLooks(1, against(1, 3).looks(), true);
        assertThat(judge(matrix, against(0, 3), rough).ruledOut())
                .as("a rule of thumb")
                .isFalse();
        assertThat(judge(matrix, against(0, 3), saw(1, 1, 3, Certainty.UNSURE)).ruledOut())
                .isFalse();
        assertThat(judge(matrix, against(0, 4), saw(1, 1, 4, Certainty.LIKELY)).ruledOut())
                .as("likely is not sure")
                .isFalse();
        for (CharacterLooks forIt : List.of(
                saw(2, 0, 1, Certainty.SURE),
                saw(2, 0, 1, Certainty.LIKELY),
                saw(2, 0, 1, Certainty.UNSURE),
                new CharacterLooks(2, saw(2, 0, 1, Certainty.SURE).looks(), true))) {
            assertThat(judge(matrix, enough[0], enough[1], forIt).support()).isLessThan(support);
        }
        Matrix odd = with(matrix, matrix.characters());
        boolean[][] weak = new boolean[2][5];
        weak[0][1] = true;
        Matrix doubtful = Matrix.of(odd.rows(), odd.characters(), cells(odd), weak, new int[2][5]);
        assertThat(judge(doubtful, enough).ruledOut())
                .as("a cell that nobody vouches for")
                .isFalse();
    }

    @Test
    void whatMayNotCountAgainstADangerTakesNothingFromWhatMay() {
        // Another character of the part, which nobody vouches for, speaks against the danger, too.
        Matrix plain = pair(3, Hazard.SERIOUS);
        List<MatrixCharacter> kinds = new ArrayList<>(plain.characters());
        kinds.set(2, kinds.get(2).on(0, List.of()));
        boolean[][] weak = new boolean[2][3];
        weak[1][2] = true;
        Matrix matrix = Matrix.of(plain.rows(), kinds, cells(plain), weak, new int[2][3]);
        double support = judge(matrix, against(0, 3), against(1, 3)).support();
        assertThat(judge(matrix, against(0, 3), against(1, 3), against(2, 4)).support())
                .isEqualTo(support);
        assertThat(judge(matrix, against(0, 3), against(1, 3), saw(2, 0, 1, Certainty.SURE))
                        .support())
                .isLessThan(support);
    }

    @Test
    void theEvidenceMayBeForAnotherRowThanTheLeader() {
        // Of two harmless rows that look alike, somebody vouched for other cells of the leader than were looked at.
        Matrix plain = pair(4, Hazard.SERIOUS);
        Cell[][] cells = {cells(plain)[0], cells(plain)[1], cells(plain)[1]};
        boolean[][] weak = {new boolean[4], {true, true, false, false}, {false, false, true, true}};
        List<MatrixRow> rows = List.of(plain.row(0), plain.row(1), new MatrixRow("meek", 2, 2, 1, Hazard.NONE_KNOWN));
        Matrix matrix = Matrix.of(rows, plain.characters(), cells, weak, new int[3][4]);
        assertThat(judge(matrix, against(0, 3), against(1, 3)).ruledOut()).isTrue();
        weak[2][1] = true;
        Matrix one = Matrix.of(rows, plain.characters(), cells, weak, new int[3][4]);
        assertThat(judge(one, against(0, 4), against(1, 4)).ruledOut())
                .as("one feature for it is not enough either")
                .isFalse();
    }

    @Test
    void contraryLooksAreSetOff() {
        Matrix matrix = pair(6, Hazard.SERIOUS);
        CharacterLooks[] three = {against(0, 4), against(1, 4), against(2, 4)};
        assertThat(judge(matrix, three).ruledOut()).isTrue();
        SafetyMargin.Judgement withdrawn = judge(matrix, three[0], three[1], saw(3, 0, 1, Certainty.SURE));
        assertThat(withdrawn.contrary()).containsExactly(3);
        assertThat(withdrawn.ruledOut()).as("two against, one for: one net").isFalse();
        CharacterLooks mixed = new CharacterLooks(
                1,
                List.of(
                        new Look(new Observation.Seen(0b10), Certainty.SURE),
                        new Look(new Observation.Seen(0b01), Certainty.SURE)),
                false);
        assertThat(judge(matrix, three[0], mixed).against())
                .as("looks that disagree")
                .containsExactly(0);
        CharacterLooks reversed = new CharacterLooks(
                1, List.of(mixed.looks().get(1), mixed.looks().get(0)), false);
        assertThat(judge(matrix, three[0], reversed)).isEqualTo(judge(matrix, three[0], mixed));
    }

    @Test
    void aLookThatFitsBothTakesBackWhatAnotherSaid() {
        Matrix plain = pair(3, Hazard.SERIOUS);
        Cell[][] cells = cells(plain);
        cells[1][0] = Cell.Categorical.even(0b11, 2);
        Matrix matrix = Matrix.of(plain.rows(), plain.characters(), cells);
        CharacterLooks both = new CharacterLooks(
                0,
                List.of(
                        new Look(new Observation.Seen(0b10), Certainty.SURE),
                        new Look(new Observation.Seen(0b01), Certainty.SURE)),
                false);
        assertThat(judge(matrix, against(0, 1), against(1, 1)).against()).containsExactly(0, 1);
        assertThat(judge(matrix, both, against(1, 1)).against()).containsExactly(1);
        assertThat(judge(matrix, both, against(1, 1)).contrary()).isEmpty();
    }

    @Test
    void aFifthLookAtOneCharacterIsNoMore() {
        Matrix matrix = pair(3, Hazard.SERIOUS);
        assertThat(judge(matrix, against(0, 5), against(1, 1))).isEqualTo(judge(matrix, against(0, 4), against(1, 1)));
    }

    @Test
    void howCommonSomethingIsDoesNotMatter() {
        Matrix matrix = pair(3, Hazard.SERIOUS);
        Matrix rare = Matrix.of(
                List.of(new MatrixRow("bane", 0, 0, 1e-6, Hazard.SERIOUS), matrix.row(1)),
                matrix.characters(),
                cells(matrix));
        assertThat(judge(rare, against(0, 1), against(1, 1)).support())
                .isEqualTo(judge(matrix, against(0, 1), against(1, 1)).support());
    }

    /** Formed like any study: parts in one another, varying, unknown and doubtful cells, absences, looks that disagree. */
    private static Matrix random(Random random) {
        int characters = 3 + random.nextInt(4);
        int rows = 3 + random.nextInt(3);
        List<MatrixCharacter> kinds = new ArrayList<>();
        for (int c = 0; c < characters; c++) {
            double rate = random.nextInt(10) == 0 ? 0.35 : random.nextInt(28) / 100.0;
            MatrixCharacter plain = MatrixCharacter.of("c" + c, CharacterType.STATES, 2 + random.nextInt(3), c)
                    .withMisreading(new Misreading(rate / 2, rate, List.of(), List.of()))
                    .withAbsence(random.nextInt(4) == 0 ? 1 : 0);
            int part = random.nextInt(3);
            MatrixCharacter placed = plain.on(part, part == 2 && random.nextBoolean() ? List.of(0) : List.of());
            kinds.add(random.nextInt(6) == 0 ? placed.withoutSafety() : placed);
        }
        Cell[][] cells = new Cell[rows][characters];
        boolean[][] weak = new boolean[rows][characters];
        List<MatrixRow> list = new ArrayList<>();
        for (int i = 0; i < rows; i++) {
            Hazard hazard = i > 0 ? Hazard.NONE_KNOWN : random.nextBoolean() ? Hazard.SERIOUS : Hazard.LIFE_THREATENING;
            list.add(new MatrixRow("r" + i, i == 1 && random.nextInt(5) == 0 ? 0 : i, i, 1, hazard));
            for (int c = 0; c < characters; c++) {
                int n = kinds.get(c).stateCount();
                int support = 1 << random.nextInt(n) | (random.nextInt(4) == 0 ? 1 << random.nextInt(n) : 0);
                Cell.Categorical shown = Cell.Categorical.even(support, n);
                int mistaken = random.nextInt(6) == 0 ? 1 << random.nextInt(n) : 0;
                cells[i][c] = random.nextInt(8) == 0
                        ? Cell.UNKNOWN
                        : new Cell.Categorical(support, support | mistaken, shown.shares());
                weak[i][c] = random.nextInt(6) == 0;
            }
        }
        return Matrix.of(list, kinds, cells, weak, new int[rows][characters]);
    }

    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3, 4})
    void theRuleIsItsDefinition(long seed) {
        int out = 0;
        for (int k = 0; k < 1_500; k++) {
            Random random = new Random(seed * 10_000 + k);
            Matrix matrix = random(random);
            int leader = matrix.rowCount() - 1;
            List<CharacterLooks> looked = new ArrayList<>();
            for (int c = 0; c < matrix.characterCount(); c++) {
                List<Look> looks = new ArrayList<>();
                int n = matrix.character(c).stateCount();
                int like = matrix.cell(leader, c) instanceof Cell.Categorical shown ? shown.support() : 1;
                for (int l = random.nextInt(6); l > 0; l--) {
                    int seen = random.nextInt(6) == 0 ? 1 << random.nextInt(n) : Integer.lowestOneBit(like);
                    Certainty certainty = random.nextInt(6) > 0 ? Certainty.SURE : Certainty.LIKELY;
                    looks.add(new Look(new Observation.Seen(seen), certainty));
                }
                if (!looks.isEmpty()) {
                    looked.add(new CharacterLooks(c, looks, random.nextInt(12) == 0));
                }
            }
            SafetyMargin margin = new SafetyMargin(matrix, Observer.NOVICE);
            SafetyMargin.Judgement judged = margin.judge(0, leader, margin.weighed(looked));
            MarginOracle oracle = new MarginOracle(matrix, Observer.NOVICE);
            double support = oracle.support(0, looked);
            assertThat(judged.support()).as("case %d", k).isCloseTo(support, within(1e-9 * Math.max(1, support)));
            assertThat(judged.ruledOut()).as("case %d", k).isEqualTo(oracle.ruledOut(0, leader, looked));
            out += judged.ruledOut() ? 1 : 0;
        }
        assertThat(out).as("cases that are ruled out, or the test tells little").isGreaterThan(20);
    }

    /** Too long to be run once for each mutation. */
    @Test
    @Tag("simulation")
    void readersWhoMisreadTwiceAsOftenSeldomRuleATrueDangerOut() {
        for (SafetyFamilies.Family family :
                SafetyFamilies.chosen(Hazard.SERIOUS).subList(3, 5)) {
            Matrix matrix = family.matrix(7);
            SafetySimulation twice = new SafetySimulation(matrix, new ReaderHabits(Observer.NOVICE, 2, 0.03, 0));
            assertThat(twice.run(0, 0, 400, 11).ruledOut()).as(family.name()).isLessThanOrEqualTo(4);
            SafetySimulation stated = new SafetySimulation(matrix, new ReaderHabits(Observer.NOVICE, 1, 0.03, 0));
            assertThat(stated.run(1, 0, 200, 12).share()).as(family.name()).isGreaterThan(0.25);
        }
        Matrix one = SafetyFamilies.chosen(Hazard.SERIOUS).get(7).matrix(7);
        assertThat(new SafetySimulation(one, new ReaderHabits(Observer.NOVICE, 1, 0, 0))
                        .run(1, 0, 60, 13)
                        .ruledOut())
                .isZero();
    }

    @Test
    void whatIsMissingIsSaid() {
        Matrix matrix = pair(4, Hazard.SERIOUS);
        SafetyMargin margin = new SafetyMargin(matrix, Observer.NOVICE);
        List<Integer> steps = margin.looksNeeded(0, 1, margin.weighed(List.of()), List.of(0, 1, 2, 3));
        List<CharacterLooks> looked = new ArrayList<>();
        for (int c : List.of(0, 1, 2, 3)) {
            int times = Collections.frequency(steps, c);
            if (times > 0) {
                looked.add(against(c, times));
            }
        }
        assertThat(judge(matrix, looked.toArray(CharacterLooks[]::new)).ruledOut())
                .isTrue();
        assertThat(steps.subList(0, 2)).as("another part first").doesNotHaveDuplicates();
        assertThat(margin.looksNeeded(0, 1, margin.weighed(List.of()), List.of(0)))
                .as("one character never does")
                .isEmpty();
        SafetyMargin.BestCase best = margin.bestCase(1);
        assertThat(best.reach(0, List.of(0, 1, 2, 3))).isGreaterThan(best.reach(0, List.of(0, 1)));
    }

    /** A part that nobody has looked at comes first, then what is misread least, then the same thing again. */
    @Test
    void theLooksThatWouldDoAreNamedInTheirOrder() {
        double[] rates = {0.18, 0.10, 0.16, 0.12};
        int[] parts = {0, 0, 1, 2};
        List<MatrixCharacter> kinds = new ArrayList<>();
        for (int c = 0; c < rates.length; c++) {
            kinds.add(MatrixCharacter.of("c" + c, CharacterType.STATES, 2, parts[c])
                    .withMisreading(new Misreading(rates[c] / 2, rates[c], List.of(), List.of())));
        }
        Matrix matrix = with(pair(4, Hazard.LIFE_THREATENING), kinds);
        SafetyMargin margin = new SafetyMargin(matrix, Observer.NOVICE);
        List<Integer> needed = margin.looksNeeded(0, 1, margin.weighed(List.of()), List.of(0, 1, 2, 3));
        assertThat(needed).hasSizeGreaterThanOrEqualTo(3).startsWith(1, 3, 2);
        List<CharacterLooks> followed = new ArrayList<>();
        for (int c = 0; c < rates.length; c++) {
            int times = Collections.frequency(needed, c);
            if (times > 0) {
                followed.add(against(c, times));
            }
        }
        assertThat(judge(matrix, followed.toArray(CharacterLooks[]::new)).ruledOut())
                .as("whoever follows them rules the danger out")
                .isTrue();
        assertThat(margin.looksNeeded(0, 1, margin.weighed(List.of()), List.of(0, 1)))
                .as("one part is never enough")
                .isEmpty();
        assertThat(margin.looksNeeded(0, 1, margin.weighed(followed), List.of(0, 1, 2, 3)))
                .as("nothing is missing any more")
                .isEmpty();
    }
}
