package org.polyclave.core.identify;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Identification.Contribution;
import org.polyclave.core.identify.Identification.Kind;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.Misreading;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.matrix.RecordedStates;

/** How answers weigh, and what can be said after them, on matrices that can be worked out by hand. */
class EvidenceTest {
    private static final int ALL_YEAR = MatrixCharacter.ALL_MONTHS;

    private static MatrixCharacter character(String id, int group, int months, List<ControllingCondition> when) {
        return new MatrixCharacter(id, CharacterType.STATES, 2, when, group, 0, group, 1, 0, 0.05, months, false, true);
    }

    private static MatrixCharacter plain(String id, int group) {
        return character(id, group, ALL_YEAR, List.of());
    }

    private static Cell only(int state) {
        return Cell.Categorical.single(state, 2);
    }

    private static Matrix matrix(List<MatrixCharacter> characters, Cell[]... cells) {
        return matrix(Hazard.NONE_KNOWN, characters, cells);
    }

    /** @param hazard of row 0 */
    private static Matrix matrix(Hazard hazard, List<MatrixCharacter> characters, Cell[]... cells) {
        List<MatrixRow> rows = new ArrayList<>();
        for (int i = 0; i < cells.length; i++) {
            rows.add(new MatrixRow("row-" + i, i, i, 1, i == 0 ? hazard : Hazard.NONE_KNOWN));
        }
        return Matrix.of(rows, characters, cells);
    }

    private static Answer saw(int character, int state) {
        return new Answer(character, new Observation.Seen(1 << state), Certainty.SURE);
    }

    private static Identification identify(Matrix matrix, Answer... answers) {
        return new AnyOrderIdentifier(matrix).identify(List.of(answers), IdentifyOptions.WEIGH);
    }

    private static Standing standing(Identification found, int row) {
        return found.standings().stream()
                .filter(s -> s.row() == row)
                .findFirst()
                .orElseThrow();
    }

    /** Bits of a part of which 3 % mislead. */
    private static double ofPart(double ratio) {
        return Math.log(0.97 * ratio + 0.03) / Math.log(2);
    }

    private static List<Double> bits(Standing standing) {
        return standing.contributions().stream().map(Contribution::bits).toList();
    }

    @Test
    void agreeingAnswersOfOneGroupAddLessAndLessButNeverTakeAway() {
        List<MatrixCharacter> oneGroup = List.of(plain("a", 7), plain("b", 7), plain("c", 7));
        Cell[] first = {only(0), only(0), only(0)};
        Cell[] second = {only(1), only(1), only(1)};
        Matrix matrix = matrix(oneGroup, first, second);
        List<Double> bits = bits(standing(identify(matrix, saw(0, 0), saw(1, 0), saw(2, 0)), 0));
        assertThat(bits.get(0)).isPositive();
        assertThat(bits.get(1)).isCloseTo(bits.get(0) * 0.25, within(1e-9));
        assertThat(bits.get(2)).isCloseTo(bits.get(0) * (3 / 2.2 - 1.25), within(1e-9));

        Matrix independent = matrix(List.of(plain("a", 1), plain("b", 2), plain("c", 3)), first, second);
        double alone = bits(standing(identify(independent, saw(0, 0)), 0)).get(0);
        assertThat(bits(standing(identify(independent, saw(0, 0), saw(1, 0)), 0)))
                .allMatch(b -> b.equals(alone));
    }

    @Test
    void howeverMuchOnePartSaysAgainstARowThePartMayMislead() {
        List<MatrixCharacter> leaf = new ArrayList<>();
        Cell[] first = new Cell[9];
        Cell[] second = new Cell[9];
        Answer[] answers = new Answer[9];
        for (int c = 0; c < 9; c++) {
            leaf.add(plain("c" + c, c).on(0, List.of()));
            first[c] = only(0);
            second[c] = only(1);
            answers[c] = saw(c, 0);
        }
        Identification found = identify(matrix(leaf, first, second), answers);
        assertThat(bits(standing(found, 1)).stream().mapToDouble(b -> b).sum())
                .isCloseTo(Math.log(0.03) / Math.log(2), within(1e-3));
        assertThat(bits(standing(found, 0)).stream().mapToDouble(b -> b).sum())
                .as("for a row it says nearly all that its answers do")
                .isCloseTo(9 * Math.log((0.98 * 0.95 + 0.01) / 0.5) / Math.log(2), within(0.05));
    }

    @Test
    void whoFitsEveryAnswerOfOnePartStandsAboveWhoContradictsOne() {
        // As five taxa of one genus: nine characters of the leaf; three contradict one answer, two none.
        List<MatrixCharacter> leaf = new ArrayList<>();
        Answer[] answers = new Answer[9];
        Cell[][] cells = new Cell[5][9];
        for (int c = 0; c < 9; c++) {
            leaf.add(plain("c" + c, c).on(0, List.of()));
            answers[c] = saw(c, 0);
            for (int i = 0; i < 5; i++) {
                cells[i][c] = only(i < 3 && c == 2 * i ? 1 : 0);
            }
        }
        Identification found = identify(matrix(leaf, cells), answers);
        assertThat(found.standings()).extracting(Standing::row).containsExactly(3, 4, 0, 1, 2);
        assertThat(standing(found, 3).posterior())
                .isGreaterThan(10 * standing(found, 0).posterior());
    }

    @Test
    void readersWantTheNameSoItsSexesCountTogether() {
        List<MatrixCharacter> characters = List.of(plain("plumage", 0), plain("crest", 1));
        List<MatrixRow> rows = List.of(
                new MatrixRow("male", 0, 0, 1, Hazard.NONE_KNOWN),
                new MatrixRow("female", 0, 0, 1, Hazard.NONE_KNOWN),
                new MatrixRow("other", 1, 0, 1.5, Hazard.NONE_KNOWN));
        Cell[][] cells = {{only(0), only(0)}, {only(0), only(1)}, {only(0), only(0)}};
        Identification found = identify(Matrix.of(rows, characters, cells), saw(0, 0));
        assertThat(found.standings()).extracting(Standing::row).containsExactly(0, 1, 2);
        assertThat(found.standings().get(0).namePosterior())
                .isGreaterThan(standing(found, 2).posterior())
                .isCloseTo(2 * standing(found, 0).posterior(), within(1e-12));
        // The plumage says nothing; the crest separates the sexes, but the names hardly.
        Cell[][] ofSexes = {{only(0), only(0)}, {only(0), only(1)}, {only(1), Cell.UNKNOWN}};
        assertThat(identify(Matrix.of(rows, characters, ofSexes)).questions())
                .extracting(Identification.Question::character)
                .startsWith(0);
    }

    @Test
    void oncANameLeadsWhatStillStandsAgainstItIsAsked() {
        // Two rivals: one far behind but not contradicted by two parts, which only the stem would do.
        List<MatrixCharacter> characters =
                List.of(plain("leaf", 0), plain("leaf tip", 1).on(0, List.of()), plain("stem", 2), plain("root", 3));
        Cell[][] cells = {
            {only(0), only(0), only(0), only(0)},
            {only(1), only(1), only(1), only(0)},
            {only(1), only(1), only(0), only(0)},
        };
        Identification found = identify(matrix(characters, cells), saw(0, 0), saw(1, 0));
        assertThat(found.standings().get(0).namePosterior()).isGreaterThan(0.9);
        assertThat(found.conclusion().kind()).isEqualTo(Kind.OPEN);
        assertThat(found.questions().get(0).character()).isEqualTo(2);
        assertThat(found.questions().get(0).bits()).as("at even odds").isGreaterThan(0.1);
    }

    @Test
    void whatOnlyConfirmsIsAskedLastAndSettlesNothing() {
        List<MatrixCharacter> deciding = List.of(plain("a", 0), plain("b", 1), plain("c", 2));
        List<MatrixCharacter> confirming =
                List.of(plain("a", 0), plain("b", 1).as(CharacterRole.CONFIRMS), plain("c", 2));
        Cell[] first = {only(0), only(0), only(0)};
        Cell[] second = {only(1), only(1), only(0)};
        assertThat(identify(matrix(deciding, first, second), saw(0, 0), saw(1, 0))
                        .conclusion()
                        .kind())
                .isEqualTo(Kind.SETTLED);
        Identification found = identify(matrix(confirming, first, second), saw(0, 0), saw(1, 0));
        assertThat(found.conclusion().kind()).isNotEqualTo(Kind.SETTLED);
        assertThat(standing(found, 1).posterior())
                .as("it is weighed all the same")
                .isLessThan(0.01);
        assertThat(identify(matrix(confirming, first, second)).questions())
                .extracting(Identification.Question::character)
                .containsExactly(0, 2, 1);
    }

    @Test
    void whatIsNeverFirstIsAskedSecond() {
        List<MatrixCharacter> characters = List.of(plain("a", 0).as(CharacterRole.NEVER_FIRST), plain("b", 1));
        Matrix matrix = matrix(characters, new Cell[] {only(0), only(0)}, new Cell[] {only(1), only(1)});
        assertThat(identify(matrix).questions())
                .extracting(Identification.Question::character)
                .containsExactly(1);
        assertThat(identify(matrix, saw(1, 0)).questions())
                .extracting(Identification.Question::character)
                .containsExactly(0);
    }

    @Test
    void withoutWhatAllMustShowItIsNoneOfThemAndItsPresenceProvesNothing() {
        List<MatrixCharacter> characters =
                List.of(plain("smell", 0).as(CharacterRole.NECESSARY), plain("a", 1), plain("b", 2));
        Cell[] first = {only(0), only(0), only(0)};
        Cell[] second = {only(0), only(1), only(1)};
        Cell[] unknown = {Cell.UNKNOWN, only(1), only(1)};
        Matrix matrix = matrix(characters, first, second, unknown);
        assertThat(identify(matrix, saw(0, 1)).conclusion().kind()).isEqualTo(Kind.OUTSIDE);
        assertThat(identify(matrix, new Answer(0, new Observation.Seen(2), Certainty.UNSURE))
                        .conclusion()
                        .kind())
                .as("whoever is not sure ends nothing")
                .isNotEqualTo(Kind.OUTSIDE);
        Identification unsmelt = identify(matrix, saw(1, 0), saw(2, 0));
        assertThat(unsmelt.conclusion().kind()).isEqualTo(Kind.OPEN);
        assertThat(unsmelt.conclusion().mustShow()).containsExactly(0);
        assertThat(unsmelt.questions().get(0).character()).isZero();
        assertThat(identify(matrix, saw(0, 0), saw(1, 0), saw(2, 0))
                        .conclusion()
                        .kind())
                .isEqualTo(Kind.SETTLED);
        Matrix some = matrix(characters, first, new Cell[] {only(1), only(0), only(0)});
        Identification smelt = identify(some, saw(0, 0));
        assertThat(bits(standing(smelt, 0))).containsExactly(0.0);
        assertThat(bits(standing(smelt, 1)).get(0)).isNegative();
    }

    @Test
    void whatIsNotMetInAMonthIsLessLikelyThenButNeverContradictedByIt() {
        List<MatrixRow> rows = List.of(
                new MatrixRow("all year", 0, 0, 1, Hazard.NONE_KNOWN),
                new MatrixRow("winter", 1, 1, 1, Hazard.NONE_KNOWN).in(0b1000_0000_0011));
        Cell[][] cells = {{only(0)}, {only(0)}};
        Matrix matrix = Matrix.of(rows, List.of(plain("a", 0)), cells);
        AnyOrderIdentifier identifier = new AnyOrderIdentifier(matrix);
        IdentifyOptions june = new IdentifyOptions(true, 0, 1 << 5, new boolean[0]);
        Standing winter = standing(identifier.identify(List.of(saw(0, 0)), june), 1);
        assertThat(winter.outOfSeason()).isTrue();
        assertThat(winter.mismatches()).isZero();
        assertThat(winter.struckOut()).isFalse();
        assertThat(winter.posterior())
                .isCloseTo(
                        standing(identifier.identify(List.of(saw(0, 0)), june), 0)
                                        .posterior()
                                / 10,
                        within(1e-9));
        for (int months : List.of(1 << 11, 1 << 5 | 1, ALL_YEAR)) {
            IdentifyOptions then = new IdentifyOptions(false, 0, months, new boolean[0]);
            assertThat(standing(identifier.identify(List.of(), then), 1).posterior())
                    .as("met in one of %x", months)
                    .isCloseTo(0.49, within(1e-9));
        }
        IdentifyOptions off = new IdentifyOptions(false, 0, 1 << 5, new boolean[0], false);
        Standing switchedOff = standing(identifier.identify(List.of(), off), 1);
        assertThat(switchedOff.posterior()).isCloseTo(0.49, within(1e-9));
        assertThat(switchedOff.outOfSeason()).as("it is said all the same").isTrue();
    }

    @Test
    void twoMisreadingsAreNoStrangerButManyAre() {
        List<MatrixCharacter> characters = new ArrayList<>();
        Cell[] first = new Cell[12];
        Cell[] second = new Cell[12];
        for (int c = 0; c < 12; c++) {
            characters.add(plain("c" + c, c));
            first[c] = only(0);
            second[c] = only(c < 6 ? 1 : 0);
        }
        Matrix matrix = matrix(characters, first, second);
        for (int wrong = 0; wrong <= 5; wrong++) {
            Answer[] answers = new Answer[12];
            for (int c = 0; c < 12; c++) {
                answers[c] = saw(c, c >= 12 - wrong ? 1 : 0);
            }
            // Twelve answers, misread at 5 %: 0.29 ± 0.93 bits each are expected; each misreading costs 4.2 more.
            assertThat(identify(matrix, answers).conclusion().kind() == Kind.OUTSIDE)
                    .as("%d of 12 like no row", wrong)
                    .isEqualTo(wrong >= 3);
        }
    }

    @Test
    void theLikelihoodOfAnAnswerFollowsTheMisreadingRate() {
        Matrix matrix = matrix(List.of(plain("a", 0)), new Cell[] {only(0)}, new Cell[] {only(1)});
        Identification sure = identify(matrix, saw(0, 0));
        // f = 0.95 for row 0 and 0.05 for row 1, b = 0.5, L = 0.98 f + 0.02 b.
        double right = ofPart((0.98 * 0.95 + 0.01) / 0.5);
        double wrong = ofPart((0.98 * 0.05 + 0.01) / 0.5);
        assertThat(bits(standing(sure, 0)).get(0)).isCloseTo(right, within(1e-9));
        assertThat(bits(standing(sure, 1)).get(0)).isCloseTo(wrong, within(1e-9));
        Identification unsure = new AnyOrderIdentifier(matrix)
                .identify(List.of(new Answer(0, new Observation.Seen(1), Certainty.UNSURE)), IdentifyOptions.WEIGH);
        assertThat(bits(standing(unsure, 0)).get(0)).isBetween(0.0, right);
        Identification either = new AnyOrderIdentifier(matrix)
                .identify(List.of(new Answer(0, new Observation.Seen(0b11), Certainty.SURE)), IdentifyOptions.WEIGH);
        assertThat(bits(standing(either, 0)).get(0))
                .as("one of these: nothing learnt")
                .isCloseTo(0, within(1e-9));
    }

    @Test
    void whatIsNotScoredNeitherHelpsNorHurts() {
        Matrix matrix = matrix(
                List.of(plain("a", 0)),
                new Cell[] {only(0)},
                new Cell[] {only(1)},
                new Cell[] {Cell.UNKNOWN},
                new Cell[] {Cell.NOT_APPLICABLE});
        Identification found = identify(matrix, saw(0, 0));
        double unknown = standing(found, 2).posterior();
        assertThat(unknown)
                .isBetween(standing(found, 1).posterior(), standing(found, 0).posterior());
        assertThat(standing(found, 3).posterior()).isCloseTo(unknown, within(1e-12));
        assertThat(standing(found, 2).compared()).isZero();
        assertThat(found.conclusion().notCompared()).containsExactlyInAnyOrder(2, 3);
    }

    @Test
    void anAnswerToADependentCharacterImpliesItsController() {
        MatrixCharacter wings = plain("wings", 0);
        MatrixCharacter colour = character("wing colour", 1, ALL_YEAR, List.of(new ControllingCondition(0, 0b10)));
        Matrix matrix = matrix(
                List.of(wings, colour), new Cell[] {only(1), only(0)}, new Cell[] {only(1), only(1)}, new Cell[] {
                    only(0), Cell.NOT_APPLICABLE
                });
        Identification found = identify(matrix, saw(1, 0));
        Standing wingless = standing(found, 2);
        assertThat(wingless.contributions())
                .anyMatch(c -> c.character() == 0 && c.implied() && c.contradicts() && c.bits() < -1);
        assertThat(standing(found, 0).posterior()).isGreaterThan(wingless.posterior());
        Identification twice = identify(matrix, saw(0, 1), saw(1, 0));
        assertThat(twice.standings().get(0).contributions())
                .as("given and implied are charged once")
                .filteredOn(c -> c.character() == 0)
                .hasSize(1);
        assertThat(identify(matrix, saw(0, 0)).questions())
                .as("no wings, no question about their colour")
                .noneMatch(q -> q.character() == 1);
    }

    @Test
    void questionsAreRankedByWhatTheyTellPerMinuteAndKeepToTheSeason() {
        int june = 1 << 5;
        MatrixCharacter slow = new MatrixCharacter(
                "slow", CharacterType.STATES, 2, List.of(), 0, 0, 0, 30, 0, 0.05, ALL_YEAR, false, true);
        Matrix matrix = matrix(
                List.of(slow, character("quick", 1, june, List.of()), plain("same", 2)),
                new Cell[] {only(0), only(0), only(0)},
                new Cell[] {only(1), only(1), only(0)});
        Identification start = identify(matrix);
        assertThat(start.questions())
                .extracting(Identification.Question::character)
                .startsWith(1, 0);
        assertThat(start.conclusion().kind()).isEqualTo(Kind.OPEN);
        IdentifyOptions january = new IdentifyOptions(false, 0, 1, new boolean[0]);
        assertThat(new AnyOrderIdentifier(matrix).identify(List.of(), january).questions())
                .noneMatch(q -> q.character() == 1);
        IdentifyOptions blind = new IdentifyOptions(false, 0, ALL_YEAR, new boolean[] {true, true});
        assertThat(new AnyOrderIdentifier(matrix).identify(List.of(), blind).questions())
                .extracting(Identification.Question::character)
                .containsExactly(2);
    }

    @Test
    void aNameIsSettledOnlyAgainstTwoIndependentContradictions() {
        List<MatrixCharacter> three = List.of(plain("a", 0), plain("b", 1), plain("c", 2), plain("d", 3));
        Cell[] first = {only(0), only(0), only(0), only(0)};
        Cell[] second = {only(1), only(1), only(1), only(1)};
        Matrix matrix = matrix(three, first, second);
        assertThat(identify(matrix, saw(0, 0)).conclusion().kind()).isEqualTo(Kind.OPEN);
        Identification settled = identify(matrix, saw(0, 0), saw(1, 0), saw(2, 0), saw(3, 0));
        assertThat(settled.conclusion().kind()).isEqualTo(Kind.SETTLED);
        assertThat(settled.conclusion().rows()).containsExactly(0);
        Matrix grouped = matrix(List.of(plain("a", 0), plain("b", 0), plain("c", 0), plain("d", 0)), first, second);
        assertThat(identify(grouped, saw(0, 0), saw(1, 0), saw(2, 0), saw(3, 0))
                        .conclusion()
                        .kind())
                .as("four answers of one group are one piece of evidence")
                .isNotEqualTo(Kind.SETTLED);
    }

    @Test
    void twoFeaturesOfOnePartDoNotSettleANameAsThePartMayMislead() {
        assertThat(kind(0.08, List.of(0, 0))).isNotEqualTo(Kind.SETTLED);
        assertThat(kind(0.15, List.of(0, 0, 0))).isEqualTo(Kind.SETTLED);
        assertThat(kind(0.08, List.of(0, 9))).isEqualTo(Kind.SETTLED);
    }

    @Test
    void whereTheNameItselfContradictsSomethingItsRivalsMustContradictTwoThingsMoreForIt() {
        List<MatrixCharacter> characters = new ArrayList<>();
        Cell[][] cells = new Cell[2][6];
        for (int c = 0; c < 6; c++) {
            characters.add(plain("c" + c, c).withMisreading(Misreading.of(0.15)));
            cells[0][c] = only(0);
            cells[1][c] = only(1);
        }
        Matrix matrix = matrix(characters, cells);
        Answer[] answers = {saw(0, 1), saw(1, 0), saw(2, 0), saw(3, 0), saw(4, 0)};
        assertThat(identify(matrix, saw(0, 1), saw(1, 0), saw(2, 0), saw(3, 0))
                        .conclusion()
                        .kind())
                .isNotEqualTo(Kind.SETTLED);
        assertThat(identify(matrix, answers).conclusion().kind()).isEqualTo(Kind.SETTLED);
    }

    @Test
    void aDangerousNameIsSettledOnlyAtTheOddsThatWouldRuleItOut() {
        assertThat(kind(Hazard.SERIOUS, 0.08, List.of(0, 1))).isNotEqualTo(Kind.SETTLED);
        assertThat(kind(Hazard.SERIOUS, 0.08, List.of(0, 1, 2, 3, 4))).isEqualTo(Kind.SETTLED);
    }

    @Test
    void whereTheLeadersCellsDoNotDoLooksAreAskedForByTheNextLikeliest() {
        List<MatrixCharacter> characters = List.of(plain("a", 0), plain("b", 1), plain("c", 2), plain("d", 3));
        Cell[] dangerous = {only(0), only(0), only(0), only(0)};
        Cell[] harmless = {only(1), only(1), only(1), only(1)};
        Matrix all = matrix(Hazard.SERIOUS, characters, dangerous, harmless, harmless);
        boolean[][] weak = {new boolean[4], {false, true, true, true}, {true, true, false, false}};
        Matrix matrix =
                Matrix.of(all.rows(), characters, new Cell[][] {dangerous, harmless, harmless}, weak, new int[3][4]);
        Identification.Margin margin = identify(matrix).margins().get(0);
        assertThat(margin.looks()).isNotEmpty().isSubsetOf(2, 3);
        assertThat(margin.features()).isEqualTo(2);
    }

    @Test
    void aNameStaysOpenWhileAnotherIsLikely() {
        List<MatrixCharacter> characters = List.of(plain("a", 0).withMisreading(Misreading.of(0.3)), plain("b", 1));
        Matrix matrix = matrix(characters, new Cell[] {only(0), only(0)}, new Cell[] {only(1), only(0)});
        Identification found = identify(matrix, saw(0, 0));
        assertThat(standing(found, 0).posterior()).isBetween(0.6, 0.9);
        assertThat(found.conclusion().rows())
                .as("both are in the likeliest 95 %")
                .containsExactly(0, 1);
    }

    @Test
    void aNameStaysOpenWhileADangerIsNotRuledOut() {
        // Three features of one part strike the rival; a danger takes two parts.
        List<MatrixCharacter> characters = new ArrayList<>();
        Cell[][] cells = new Cell[2][4];
        Answer[] answers = new Answer[4];
        for (int c = 0; c < 4; c++) {
            characters.add(plain("c" + c, c).on(0, List.of()).withMisreading(Misreading.of(0.05)));
            cells[0][c] = only(0);
            cells[1][c] = only(1);
            answers[c] = saw(c, 1);
        }
        Identification harmless = identify(matrix(Hazard.NONE_KNOWN, characters, cells), answers);
        Identification beside = identify(matrix(Hazard.SERIOUS, characters, cells), answers);
        assertThat(harmless.conclusion().kind()).isEqualTo(Kind.SETTLED);
        assertThat(beside.standings().get(0).row()).isEqualTo(1);
        assertThat(beside.conclusion().kind()).isNotEqualTo(Kind.SETTLED);
        assertThat(beside.conclusion().notRuledOut()).containsExactly(0);
    }

    @Test
    void whatNoTaxonShowsTogetherIsOutside() {
        // Each row alone shows its own mark; the specimen has them all.
        List<MatrixCharacter> characters = new ArrayList<>();
        Cell[][] cells = new Cell[6][6];
        List<Answer> answers = new ArrayList<>();
        for (int c = 0; c < 6; c++) {
            characters.add(plain("c" + c, c));
            for (int i = 0; i < 6; i++) {
                cells[i][c] = only(i == c ? 1 : 0);
            }
            answers.add(saw(c, 1));
        }
        Matrix matrix = matrix(characters, cells);
        assertThat(identify(matrix, answers.toArray(Answer[]::new)).conclusion().kind())
                .isEqualTo(Kind.OUTSIDE);
        assertThat(identify(matrix, saw(0, 1), saw(1, 0)).conclusion().kind()).isNotEqualTo(Kind.OUTSIDE);
    }

    @Test
    void nobodyIsAskedToHandleWhatOnlyDistinguishesDangers() {
        MatrixCharacter root = plain("root", 1).by(Handling.DIG);
        List<MatrixCharacter> characters = List.of(plain("leaf", 0), root);
        Cell[][] cells = {{only(0), only(0)}, {only(0), only(1)}, {only(1), Cell.UNKNOWN}};
        for (Hazard other : List.of(Hazard.SERIOUS, Hazard.NONE_KNOWN)) {
            List<MatrixRow> rows = List.of(
                    new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS),
                    new MatrixRow("other", 1, 1, 1, other),
                    new MatrixRow("mild", 2, 2, 1, Hazard.NONE_KNOWN));
            assertThat(identify(Matrix.of(rows, characters, cells)).questions())
                    .extracting(Identification.Question::character)
                    .as("dig for a root that distinguishes bane from what is %s", other)
                    .isEqualTo(other.isDangerous() ? List.of(0) : List.of(0, 1));
        }
    }

    @Test
    void whatIsStillToBeLookedAtIsThereNowAndSafe() {
        int june = 1 << 5;
        List<MatrixCharacter> characters = List.of(
                plain("seen", 0),
                plain("leaf", 1),
                character("flower", 2, june, List.of()),
                plain("smoke", 3).by(Handling.CRUSH));
        Matrix matrix = matrix(Hazard.SERIOUS, characters, new Cell[] {only(0), only(0), only(0), only(0)}, new Cell[] {
            only(1), only(1), only(1), only(1)
        });
        IdentifyOptions january = new IdentifyOptions(false, 0, 1, new boolean[0]);
        Identification.Margin now = new AnyOrderIdentifier(matrix)
                .identify(List.of(saw(0, 1)), january)
                .margins()
                .get(0);
        assertThat(now.safeQuestions())
                .as("the other part first, then a second look")
                .containsExactly(1, 0);
        assertThat(now.later()).containsExactly(2);
        assertThat(now.looks()).isNotEmpty().isSubsetOf(0, 1);
        assertThat(identify(matrix, saw(0, 1)).margins().get(0).safeQuestions()).containsExactly(1, 2, 0);
    }

    @Test
    void whatIsSeenOfOneRowInJuneAloneCannotSeparateInJanuary() {
        List<MatrixCharacter> characters = List.of(plain("leaf", 0), plain("stem", 1), plain("flower", 2));
        Cell[][] cells = {{only(0), only(0), only(0)}, {only(1), only(1), only(1)}};
        Matrix all = matrix(Hazard.SERIOUS, characters, cells);
        for (int row = 0; row < 2; row++) {
            int[][] months = new int[2][3];
            months[row][2] = 1 << 5;
            Matrix matrix = Matrix.of(all.rows(), characters, cells, new boolean[2][3], months);
            Identification.Margin july = identify(matrix).margins().get(0);
            assertThat(july.safeQuestions()).as("some time of the year").containsExactly(0, 1, 2);
            IdentifyOptions winter = new IdentifyOptions(false, 0, 0b11, new boolean[0]);
            assertThat(new AnyOrderIdentifier(matrix)
                            .identify(List.of(), winter)
                            .margins()
                            .get(0)
                            .safeQuestions())
                    .containsExactly(0, 1);
        }
    }

    @Test
    void everyLookThatSpeaksAgainstADangerIsCounted() {
        List<MatrixCharacter> characters = List.of(plain("leaf", 0), plain("stem", 1));
        Matrix matrix =
                matrix(Hazard.SERIOUS, characters, new Cell[] {only(0), only(0)}, new Cell[] {only(1), only(1)});
        Look again = new Look(new Observation.Seen(0b10), Certainty.SURE);
        Answer twice = new Answer(0, again.observation(), Certainty.SURE, false, List.of(again));
        assertThat(identify(matrix, twice, saw(1, 1)).margins().get(0).agreeing())
                .isEqualTo(3);
        assertThat(identify(matrix, saw(1, 1)).margins().get(0).safeQuestions())
                .as("a part that nobody has looked at, then the other again")
                .containsExactly(0, 1);
    }

    /** Something that stings a little is in question until it is unlikely; what takes touching then comes last. */
    @Test
    void whatTakesNoContactComesFirstWhileSomethingMayHarm() {
        MatrixCharacter feel = plain("feel", 0).by(Handling.TOUCH);
        List<MatrixCharacter> characters = List.of(
                feel, plain("look", 1).withMisreading(Misreading.of(0.4)), plain("a", 2), plain("b", 3), plain("c", 4));
        Cell[][] cells = {
            {only(0), only(0), only(0), only(0), only(0)},
            {only(1), only(1), only(1), only(1), only(1)},
            {only(0), only(0), only(1), only(1), only(1)}
        };
        List<MatrixRow> rows = List.of(
                new MatrixRow("nettle", 0, 0, 1, Hazard.CAUTION),
                new MatrixRow("mild", 1, 1, 1, Hazard.NONE_KNOWN),
                new MatrixRow("meek", 2, 2, 1, Hazard.NONE_KNOWN));
        Matrix matrix = Matrix.of(rows, characters, cells);
        Answer[] notTheNettle = {saw(2, 1), saw(3, 1), saw(4, 1)};
        assertThat(standing(identify(matrix, notTheNettle), 0).posterior()).isLessThan(0.005);
        assertThat(identify(matrix, notTheNettle).questions())
                .extracting(Identification.Question::character, Identification.Question::advice)
                .containsExactly(tuple(0, Handling.Advice.FREELY), tuple(1, Handling.Advice.FREELY));
        assertThat(identify(matrix, saw(2, 1)).questions())
                .filteredOn(q -> q.character() < 2)
                .extracting(Identification.Question::character, Identification.Question::advice)
                .containsExactly(tuple(1, Handling.Advice.FREELY), tuple(0, Handling.Advice.PROTECTED));
    }

    /** After answers to features of their own on parts, each against the only rival, which keeps some weight. */
    private static Kind kind(double misreading, List<Integer> parts) {
        return kind(Hazard.NONE_KNOWN, misreading, parts);
    }

    private static Kind kind(Hazard hazard, double misreading, List<Integer> parts) {
        List<MatrixCharacter> characters = new ArrayList<>();
        Cell[] first = new Cell[parts.size()];
        Cell[] second = new Cell[parts.size()];
        List<Answer> answers = new ArrayList<>();
        for (int c = 0; c < parts.size(); c++) {
            characters.add(plain("c" + c, c).on(parts.get(c), List.of()).withMisreading(Misreading.of(misreading)));
            first[c] = only(0);
            second[c] = only(1);
            answers.add(saw(c, 0));
        }
        return identify(matrix(hazard, characters, first, second), answers.toArray(Answer[]::new))
                .conclusion()
                .kind();
    }

    @Test
    void furtherLooksOutvoteTheFirst() {
        Matrix matrix = matrix(
                List.of(plain("a", 0), MatrixCharacter.of("width", CharacterType.LENGTH, 1, 1)),
                new Cell[] {only(0), Cell.Numeric.range(1, 4)},
                new Cell[] {only(1), Cell.Numeric.range(5, 9)});
        Look wrong = new Look(new Observation.Seen(2), Certainty.SURE);
        Look right = new Look(new Observation.Seen(1), Certainty.SURE);
        Answer outvoted = new Answer(0, wrong.observation(), wrong.certainty(), false, List.of(right, right));
        Answer even = new Answer(0, wrong.observation(), wrong.certainty(), false, List.of(right));
        assertThat(standing(identify(matrix, outvoted), 0).mismatches()).isZero();
        assertThat(standing(identify(matrix, outvoted), 1).mismatches()).isEqualTo(1);
        assertThat(identify(matrix, outvoted).standings().get(0).row()).isZero();
        assertThat(standing(identify(matrix, even), 0).mismatches()).isZero();
        assertThat(standing(identify(matrix, even), 1).mismatches()).isZero();
        Answer sizes = new Answer(1, reading(8).observation(), Certainty.SURE, false, List.of(reading(2), reading(3)));
        assertThat(identify(matrix, sizes).standings().get(0).row()).isZero();
        assertThat(standing(identify(matrix, sizes), 0).score())
                .as("the middle reading stands for all")
                .isEqualTo(standing(identify(matrix, new Answer(1, reading(3).observation(), Certainty.SURE)), 0)
                        .score());
        Answer two = new Answer(1, reading(8).observation(), Certainty.SURE, false, List.of(reading(2)));
        assertThat(standing(identify(matrix, two), 0).posterior())
                .isCloseTo(standing(identify(matrix, two), 1).posterior(), within(0.2));
    }

    private static Look reading(double value) {
        return new Look(new Observation.MeasuredObservation(value, 0.5), Certainty.SURE);
    }

    @Test
    void rulesOfThumbNeitherSettleNorStrikeOut() {
        List<MatrixCharacter> four = List.of(plain("a", 0), plain("b", 1), plain("c", 2), plain("d", 3));
        Matrix matrix = matrix(
                four, new Cell[] {only(0), only(0), only(0), only(0)}, new Cell[] {only(1), only(1), only(1), only(1)});
        Answer[] answers = {saw(0, 0), rough(1, 0), rough(2, 0), rough(3, 0)};
        Identification found = identify(matrix, answers);
        assertThat(found.standings().get(0).row()).isZero();
        assertThat(standing(found, 1).posterior())
                .isLessThan(standing(identify(matrix, saw(0, 0)), 1).posterior());
        assertThat(found.conclusion().kind()).isNotEqualTo(Kind.SETTLED);
        // Rules of thumb alone bring a rival below notice; it still counts as one.
        Answer[] more = {rough(0, 0), rough(1, 0), rough(2, 0), rough(3, 0)};
        assertThat(standing(identify(matrix, more), 1).posterior()).isLessThan(0.002);
        assertThat(identify(matrix, more).conclusion().kind()).isNotEqualTo(Kind.SETTLED);
        assertThat(identify(matrix, saw(0, 0), saw(1, 0), saw(2, 0), rough(3, 0))
                        .conclusion()
                        .kind())
                .isEqualTo(Kind.SETTLED);

        Identification struck = new AnyOrderIdentifier(matrix)
                .identify(List.of(answers), new IdentifyOptions(true, 1, ALL_YEAR, new boolean[0]));
        assertThat(struck.standings()).extracting(Standing::struckOut).containsOnly(false);
    }

    private static Answer rough(int character, int state) {
        return new Answer(character, new Observation.Seen(1 << state), Certainty.SURE, true);
    }

    @Test
    void strikingOutToleratesAsManyContradictionsAsAsked() {
        Matrix matrix = matrix(
                List.of(plain("a", 0), plain("b", 1)),
                new Cell[] {only(0), only(0)},
                new Cell[] {only(0), only(1)},
                new Cell[] {only(1), only(1)});
        List<Answer> answers = List.of(saw(0, 0), saw(1, 0));
        AnyOrderIdentifier identifier = new AnyOrderIdentifier(matrix);
        Identification strict = identifier.identify(answers, new IdentifyOptions(true, 0, ALL_YEAR, new boolean[0]));
        assertThat(strict.standings()).extracting(Standing::struckOut).containsExactly(false, true, true);
        Identification lenient = identifier.identify(answers, new IdentifyOptions(true, 1, ALL_YEAR, new boolean[0]));
        assertThat(lenient.standings()).extracting(Standing::struckOut).containsExactly(false, false, true);
        Identification none = identifier.identify(
                List.of(saw(0, 1), saw(1, 0)), new IdentifyOptions(true, 0, ALL_YEAR, new boolean[0]));
        assertThat(none.conclusion().kind()).isEqualTo(Kind.NONE_LEFT);
    }

    @Test
    void readingsAreComparedWithTheRange() {
        MatrixCharacter width = MatrixCharacter.of("width", CharacterType.LENGTH, 0, 0);
        Matrix matrix =
                matrix(List.of(width), new Cell[] {Cell.Numeric.range(1, 4)}, new Cell[] {Cell.Numeric.range(5, 9)});
        Identification found = new AnyOrderIdentifier(matrix)
                .identify(
                        List.of(new Answer(0, new Observation.MeasuredObservation(3, 0.5), Certainty.SURE)),
                        IdentifyOptions.WEIGH);
        assertThat(found.standings().get(0).row()).isZero();
        assertThat(standing(found, 1).mismatches()).isEqualTo(1);
        Identification between = new AnyOrderIdentifier(matrix)
                .identify(
                        List.of(new Answer(0, new Observation.MeasuredObservation(4.5, 1), Certainty.SURE)),
                        IdentifyOptions.WEIGH);
        assertThat(standing(between, 0).mismatches() + standing(between, 1).mismatches())
                .isZero();
    }

    @Test
    void mostMisreadingsGoToTheStatesThatAreCommonlyMistaken() {
        assertThat(outcomes(List.of(0b0010, 0, 0, 0), 0)).containsExactly(0.9, 0.07, 0.015, 0.015);
        assertThat(outcomes(List.of(0b1110, 0, 0, 0), 0))
                .as("no others")
                .containsExactly(0.9, 0.1 / 3, 0.1 / 3, 0.1 / 3);
        assertThat(outcomes(List.of(0, 0, 0, 0), 0)).as("none alike").containsExactly(0.9, 0.1 / 3, 0.1 / 3, 0.1 / 3);
        double[] mistaken = outcomes(List.of(0b0010, 0, 0, 0), 0b0010);
        assertThat(mistaken[1]).as("the row's own rate").isCloseTo(0.15, within(1e-12));
        assertThat(mistaken[0] + mistaken[1] + mistaken[2] + mistaken[3]).isCloseTo(1, within(1e-12));
    }

    /** What is recorded of a specimen that shows the first of four states, at a misreading rate of 10 %. */
    private static double[] outcomes(List<Integer> confusable, int mistaken) {
        MatrixCharacter character = new MatrixCharacter(
                "c",
                CharacterType.STATES,
                4,
                List.of(),
                0,
                0,
                0,
                1,
                0,
                Misreading.of(0.05),
                ALL_YEAR,
                Handling.NONE,
                true,
                confusable,
                0,
                List.of(),
                CharacterRole.DECIDES,
                1);
        Cell.Categorical cell = new Cell.Categorical(1, 1 | mistaken, new double[] {1, 0, 0, 0});
        double[] exact = RecordedStates.of(character, cell, 0.1);
        for (int s = 0; s < exact.length; s++) {
            exact[s] = Math.abs(exact[s] - Math.rint(exact[s] * 1000) / 1000) < 1e-12
                    ? Math.rint(exact[s] * 1000) / 1000
                    : exact[s];
        }
        return exact;
    }

    /** Rates by observer and group, against the arithmetic by hand: f, b = mean of f, bits = log2((0.98·f + 0.02·b) / b). */
    @Test
    void whereACharacterIsOftenMisreadItSaysLess() {
        Misreading misreading = new Misreading(0.04, 0.2, List.of(-1.0, 0.3, -1.0), List.of(-1.0, 0.4, -1.0));
        MatrixCharacter ring = new MatrixCharacter(
                "ring",
                CharacterType.STATES,
                2,
                List.of(),
                0,
                0,
                0,
                1,
                0,
                misreading,
                ALL_YEAR,
                Handling.NONE,
                true,
                List.of(),
                0,
                List.of(),
                CharacterRole.DECIDES,
                1);
        Matrix matrix = matrix(List.of(ring), new Cell[] {only(0)}, new Cell[] {only(1)}, new Cell[] {only(1)});
        double[] gains = new double[2];
        for (boolean trained : new boolean[] {true, false}) {
            AnyOrderIdentifier identifier =
                    new AnyOrderIdentifier(matrix, trained ? Observer.TRAINED : Observer.NOVICE);
            Identification found = identifier.identify(List.of(saw(0, 0)), IdentifyOptions.WEIGH);
            double[] f = trained ? new double[] {0.96, 0.3, 0.04} : new double[] {0.8, 0.4, 0.2};
            double b = (f[0] + f[1] + f[2]) / 3;
            for (int row = 0; row < 3; row++) {
                double expected = ofPart((0.98 * f[row] + 0.02 * b) / b);
                assertThat(bits(standing(found, row)).get(0)).isCloseTo(expected, within(1e-9));
            }
            gains[trained ? 0 : 1] = identifier
                    .identify(List.of(), IdentifyOptions.WEIGH)
                    .questions()
                    .get(0)
                    .bits();
        }
        assertThat(gains[1]).as("novices learn less from it").isLessThan(gains[0]);
    }

    @Test
    void aCellOutOfItsOwnMonthsSaysNothing() {
        List<MatrixCharacter> characters = List.of(plain("a", 1), plain("b", 2));
        List<MatrixRow> rows = List.of(
                new MatrixRow("summer", 0, 0, 1, Hazard.SERIOUS),
                new MatrixRow("all-year", 1, 1, 1, Hazard.NONE_KNOWN));
        Matrix matrix = Matrix.of(
                rows,
                characters,
                new Cell[][] {{only(0), only(0)}, {only(1), only(1)}},
                new boolean[2][2],
                new int[][] {{1 << 6, 0}, {0, 0}});
        AnyOrderIdentifier identifier = new AnyOrderIdentifier(matrix);
        List<Answer> answers = List.of(saw(0, 1));
        Identification july = identifier.identify(answers, new IdentifyOptions(false, 0, 1 << 6, new boolean[0]));
        Identification january = identifier.identify(answers, new IdentifyOptions(false, 0, 1, new boolean[0]));
        assertThat(standing(july, 0).contributions().get(0).contradicts()).isTrue();
        assertThat(standing(january, 0).contributions().get(0).known()).isFalse();
        assertThat(bits(standing(january, 1))).as("and nothing to compare with").containsExactly(0.0);
        assertThat(january.margins().get(0).safeQuestions()).containsExactly(1);
        assertThat(matrix.inEvery(1).cell(0, 0)).isEqualTo(Cell.UNKNOWN);
        assertThat(matrix.inEvery(1).cell(0, 1)).isEqualTo(only(0));
    }
}
