package org.polyclave.core.key;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.polyclave.core.key.KeyResult.Price;
import org.polyclave.core.key.KeyResult.PriceKind;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.Misreading;
import org.polyclave.core.testkit.SyntheticMatrix;

/** What readers find awkward, worked out by hand. */
class SplitCostTest {
    private static final int SPRING = 0b111000;

    private static final List<MatrixCharacter> CHARACTERS = List.of(
            MatrixCharacter.of("series", CharacterType.ORDERED, 4, 0),
            MatrixCharacter.of("shape", CharacterType.STATES, 5, 1),
            new MatrixCharacter(
                    "flower",
                    CharacterType.STATES,
                    2,
                    List.of(),
                    2,
                    0,
                    2,
                    3,
                    0,
                    Misreading.of(0.05),
                    SPRING,
                    Handling.NONE,
                    true,
                    List.of(),
                    0,
                    List.of(),
                    CharacterRole.DECIDES,
                    1));

    private static final KeyProblem PROBLEM = new KeyProblem(matrix(), true);

    private static Matrix matrix() {
        Cell[][] cells = new Cell[5][];
        MatrixRow[] rows = new MatrixRow[5];
        for (int i = 0; i < 5; i++) {
            rows[i] = new MatrixRow("row-" + i, i, i / 2, 1, Hazard.NONE_KNOWN);
            cells[i] = new Cell[] {
                Cell.Categorical.single(Math.min(i, 3), 4),
                Cell.Categorical.single(i, 5),
                Cell.Categorical.single(i % 2, 2)
            };
        }
        return Matrix.of(List.of(rows), CHARACTERS, cells);
    }

    private static List<Price> prices(KeyObjective objective, int months, Position position, Split split) {
        return new SplitCost(PROBLEM, objective, KeyOptions.DEFAULT.inMonths(months)).prices(position, split);
    }

    private static List<Price> prices(Split split) {
        return prices(KeyObjective.BEGINNER, MatrixCharacter.ALL_MONTHS, Position.start(PROBLEM), split);
    }

    @Test
    void aSeriesIsDividedAtOnePlace() {
        assertThat(prices(Split.states(0, 0b0011, 0b1100))).isEmpty();
        assertThat(prices(Split.states(0, 0b1100, 0b0011))).isEmpty();
        assertThat(prices(Split.states(0, 0b0101, 0b1010))).containsExactly(new Price(PriceKind.OUT_OF_ORDER, 0.5));
    }

    @Test
    void oneStateAgainstAllOthersIsReadAtOnceButTwoAgainstThreeAreNot() {
        assertThat(prices(Split.states(1, 0b00001, 0b11110))).isEmpty();
        assertThat(prices(Split.states(1, 0b00011, 0b01100))).isEmpty();
        assertThat(prices(Split.states(1, 0b00011, 0b11100)))
                .extracting(Price::kind)
                .containsExactly(PriceKind.MANY_STATES);
    }

    @Test
    void whatWasAskedBeforeIsAwkward() {
        Position after = Position.start(PROBLEM).follow(Split.states(1, 0b00001, 0b11110), false);
        List<Price> prices =
                prices(KeyObjective.BEGINNER, MatrixCharacter.ALL_MONTHS, after, Split.states(1, 0b00010, 0b11100));
        assertThat(prices).containsExactly(new Price(PriceKind.ASKED_AGAIN, 0.3));
    }

    @Test
    void aFlowerOfThreeMonthsIsOutOfSeasonInNineOfTwelve() {
        Split flower = Split.states(2, 0b01, 0b10);
        assertThat(prices(flower)).containsExactly(new Price(PriceKind.OUT_OF_SEASON, 0.375));
        assertThat(prices(KeyObjective.BEGINNER, SPRING, Position.start(PROBLEM), flower))
                .isEmpty();
        double asking = new SplitCost(PROBLEM, KeyObjective.EQUIPMENT, KeyOptions.DEFAULT)
                .asking(Position.start(PROBLEM), flower);
        assertThat(asking).as("three minutes and the season").isCloseTo(3.375, within(1e-12));
    }

    @Test
    void whatOneIndividualInFiveHasIsAwkward() {
        Matrix seldom = SyntheticMatrix.withCharacters(PROBLEM.matrix, c -> c.id().equals("shape") ? c.seenOn(0.2) : c);
        KeyProblem problem = new KeyProblem(seldom, true);
        SplitCost cost = new SplitCost(problem, KeyObjective.CAUTIOUS, KeyOptions.DEFAULT);
        assertThat(cost.prices(Position.start(problem), Split.states(1, 0b00001, 0b11110)))
                .containsExactly(new Price(PriceKind.SELDOM_THERE, 0.4));
    }

    @Test
    void aThirdLeadIsReadInTheSameCouplet() {
        KeyProblem three = new KeyProblem(PROBLEM.matrix, true, 3);
        Split one = Split.states(1, 0b00001, 0b11110);
        Split other = Split.states(1, 0b00010, 0b11100);
        Position rest = Position.start(three).follow(one, false);
        SplitCost cost = new SplitCost(three, KeyObjective.EQUIPMENT, KeyOptions.DEFAULT);
        assertThat(cost.asking(rest, other)).isCloseTo(0.15, within(1e-12));
        assertThat(new SplitCost(three, KeyObjective.FEWEST, KeyOptions.DEFAULT).asking(rest, other))
                .isZero();
        // The fourth lead is another couplet, and the first does not go on.
        Split last = Split.states(1, 0b00100, 0b11000);
        assertThat(cost.prices(rest.follow(other, false), last)).contains(new Price(PriceKind.ASKED_AGAIN, 0.3));
        assertThat(Position.start(three).follow(one, true).goesOn(other)).isFalse();
    }

    @Test
    void whereOnlyStepsCountNothingIsAwkward() {
        assertThat(prices(
                        KeyObjective.FEWEST,
                        MatrixCharacter.ALL_MONTHS,
                        Position.start(PROBLEM),
                        Split.states(0, 0b0101, 0b1010)))
                .isEmpty();
    }

    /** Rows 0, 1 and 2, 3 are relatives; of two groups both have a row on either side. */
    @Test
    void everyNamedGroupThatIsDividedCosts() {
        SplitCost cost = new SplitCost(PROBLEM, KeyObjective.RELATIVES, KeyOptions.DEFAULT);
        Position start = Position.start(PROBLEM);
        assertThat(cost.asking(start, Split.states(0, 0b0011, 0b1100))).isCloseTo(1, within(1e-12));
        assertThat(cost.asking(start, Split.states(0, 0b0001, 0b1110))).isCloseTo(1.5, within(1e-12));
    }

    /** Of one state's specimens all that are misread go astray, of four states' each fourth. */
    @Test
    void theShareThatIsTakenDownTheWrongLeadIsThatOfTheSpecimensThatCome() {
        SplitCost trained = new SplitCost(PROBLEM, KeyObjective.EQUIPMENT, KeyOptions.DEFAULT);
        Position start = Position.start(PROBLEM);
        assertThat(trained.misread(start, Split.states(2, 0b01, 0b10))).isCloseTo(0.05, within(1e-12));
        Split oneAgainstFour = Split.states(1, 0b00001, 0b11110);
        assertThat(trained.misread(start, oneAgainstFour)).isCloseTo((0.05 + 4 * 0.05 / 4) / 5, within(1e-12));
        Position four = start.follow(oneAgainstFour, false);
        assertThat(trained.misread(four, Split.states(1, 0b00010, 0b11100)))
                .isCloseTo((0.05 + 3 * 0.05 / 3) / 4, within(1e-12));
        assertThat(new SplitCost(PROBLEM, KeyObjective.BEGINNER, KeyOptions.DEFAULT).misread(start, oneAgainstFour))
                .as("novices misread more often")
                .isGreaterThan(trained.misread(start, oneAgainstFour));
    }

    /** Of five, two are dangerous: on average over these a couplet more, as long as one of the others could be meant. */
    @Test
    void whereHazardsComeFirstTheyCostUntilTheyAreSeparated() {
        List<MatrixRow> rows = PROBLEM.matrix.rows().stream()
                .map(r ->
                        new MatrixRow(r.id(), r.name(), r.kin(), 1, r.name() < 2 ? Hazard.SERIOUS : Hazard.NONE_KNOWN))
                .toList();
        KeyProblem dangerous = new KeyProblem(Matrix.of(rows, CHARACTERS, SyntheticMatrix.cells(PROBLEM.matrix)), true);
        Position start = Position.start(dangerous);
        Split shape = Split.states(1, 0b00011, 0b11100);
        for (KeyObjective objective : KeyObjective.values()) {
            SplitCost plain = new SplitCost(dangerous, objective, KeyOptions.DEFAULT);
            SplitCost early = new SplitCost(dangerous, objective, KeyOptions.DEFAULT.withHazardsFirst(true));
            double more = objective == KeyObjective.FEWEST ? 0 : 1;
            assertThat(early.asking(start, shape) - plain.asking(start, shape))
                    .as(objective.name())
                    .isCloseTo(more, within(1e-12));
            Split rest = Split.states(1, 0b00001, 0b00010);
            Position separated = start.follow(shape, true);
            assertThat(early.asking(separated, rest)).isEqualTo(plain.asking(separated, rest));
            Position oneOfThem = start.follow(Split.states(1, 0b00101, 0b11010), true);
            Split other = Split.states(1, 0b00001, 0b00100);
            assertThat(oneOfThem.total * (early.asking(oneOfThem, other) - plain.asking(oneOfThem, other)))
                    .as("half of the dangerous ones come here")
                    .isCloseTo(more / 2, within(1e-12));
        }
    }
}
