package org.polyclave.core.key;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.key.Atoms.Interval;
import org.polyclave.core.key.Atoms.States;
import org.polyclave.core.key.Key.Role;
import org.polyclave.core.key.Key.ToRows;
import org.polyclave.core.key.KeyOutcome.Generated;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.MisidentificationCosts;
import org.polyclave.core.matrix.Misreading;
import org.polyclave.core.measuring.RuleOfThumb;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Completion;
import org.polyclave.core.run.Progress;
import org.polyclave.core.statistics.Measured;
import org.polyclave.core.testkit.SyntheticMatrix;

/** What generated keys look like on small matrices that can be worked out by hand. */
class GenerationTest {
    private static final KeyOptions QUICK = KeyOptions.DEFAULT.withNodeBudget(100);

    private static final KeyGenerator GENERATOR = new KeyGenerator();

    private static MatrixCharacter states(String id, int index, int n) {
        return MatrixCharacter.of(id, CharacterType.STATES, n, index);
    }

    private static MatrixCharacter length(String id, int index, double uncertainty) {
        return new MatrixCharacter(
                id, CharacterType.LENGTH, 0, List.of(), index, 0, index, 1, uncertainty, 0.05, 0xFFF, false, true);
    }

    private static Cell only(int state, int n) {
        return Cell.Categorical.single(state, n);
    }

    private static Matrix matrix(List<MatrixCharacter> characters, Cell[]... rows) {
        List<MatrixRow> list = new ArrayList<>();
        for (int i = 0; i < rows.length; i++) {
            list.add(new MatrixRow("row-" + i, i, i, 1, Hazard.NONE_KNOWN));
        }
        return Matrix.of(list, characters, rows);
    }

    private static KeyResult key(Matrix matrix) {
        return ((Generated) GENERATOR.generate(matrix, QUICK, CancelSignal.NEVER)).result();
    }

    private static List<ToRows> terminals(Key key) {
        List<ToRows> terminals = new ArrayList<>();
        for (Key.Couplet couplet : key.couplets()) {
            for (Key.Lead lead : couplet.leads()) {
                if (lead.to() instanceof ToRows rows) {
                    terminals.add(rows);
                }
            }
        }
        return terminals;
    }

    private static Interval interval(Key key, int couplet, int lead) {
        return (Interval) key.couplets()
                .get(couplet)
                .leads()
                .get(lead)
                .statements()
                .get(0)
                .atoms();
    }

    @ParameterizedTest
    @CsvSource({
        "5, 7, 6",
        "5.1, 5.3, 5.2",
        "0.12, 0.17, 0.15",
        "99, 152, 100",
        "6, 6.5, 6.2",
        "1.02, 1.03, 1.025",
        "17, 44, 30"
    })
    void limitsAreNumbersThatPeopleUse(double low, double high, double expected) {
        double chosen = RoundNumber.inside(low, high);
        assertThat(chosen).isStrictlyBetween(low, high);
        assertThat(chosen).as("of %s–%s", low, high).isCloseTo(expected, within((high - low) / 4));
        assertThat(Double.toString(chosen).length())
                .isLessThanOrEqualTo(Double.toString(expected).length() + 1);
    }

    @Test
    void aThresholdStandsInsideTheGapLessTheReadingUncertainty() {
        Matrix clear = matrix(
                List.of(length("w", 0, 0)), new Cell[] {Cell.Numeric.range(1, 4)}, new Cell[] {Cell.Numeric.range(6, 9)
                });
        KeyResult key = key(clear);
        double cut = interval(key.key(), 0, 0).max();
        assertThat(cut).isStrictlyBetween(4.0, 6.0);
        assertThat(interval(key.key(), 0, 1)).isEqualTo(new Interval(cut, Double.POSITIVE_INFINITY, true, false));
        assertThat(key.figures().completion()).isEqualTo(Completion.OPTIMAL);

        Matrix blurred = matrix(List.of(length("w", 0, 2.5)), new Cell[] {Cell.Numeric.range(1, 4)}, new Cell[] {
            Cell.Numeric.range(6, 9)
        });
        assertThat(key(blurred).key().couplets())
                .as("a gap of 2 with readings ± 2.5 separates nothing")
                .isEmpty();
        Matrix touching = matrix(
                List.of(length("w", 0, 0)), new Cell[] {Cell.Numeric.range(5, 7)}, new Cell[] {Cell.Numeric.range(7, 9)
                });
        assertThat(key(touching).key().whole().reason()).isEqualTo(Key.Reason.INSEPARABLE);
    }

    /** 0.2 · 1 + 5 · 0.05 against 0.2 · 4 + 5 · 0.02: the quick one is cheaper, until a slip costs 50 times its chance more. */
    @ParameterizedTest
    @CsvSource({"NONE_KNOWN, quick", "CAUTION, quick", "SERIOUS, sure", "LIFE_THREATENING, sure"})
    void acrossADangerTheCautiousKeyAsksWhatIsMisreadLeast(Hazard hazard, String asked) {
        List<MatrixCharacter> two = List.of(
                new MatrixCharacter(
                        "quick", CharacterType.STATES, 2, List.of(), 0, 0, 0, 1, 0, 0.05, 0xFFF, false, true),
                new MatrixCharacter(
                        "sure", CharacterType.STATES, 2, List.of(), 1, 0, 1, 4, 0, 0.02, 0xFFF, false, true));
        Matrix matrix = Matrix.of(
                List.of(new MatrixRow("a", 0, 0, 1, hazard), new MatrixRow("b", 1, 1, 1, Hazard.NONE_KNOWN)),
                two,
                new Cell[][] {{only(0, 2), only(0, 2)}, {only(1, 2), only(1, 2)}});
        KeyOptions cautious = QUICK.withObjective(KeyObjective.CAUTIOUS);
        Key key = ((Generated) GENERATOR.generate(matrix, cautious, CancelSignal.NEVER))
                .result()
                .key();
        int decides = key.couplets().get(0).leads().get(0).statements().stream()
                .filter(t -> t.role() == Role.DECIDING)
                .findFirst()
                .orElseThrow()
                .character();
        assertThat(two.get(decides).id()).isEqualTo(asked);
    }

    @Test
    void countsAreSplitBetweenWholeNumbers() {
        MatrixCharacter petals = MatrixCharacter.of("petals", CharacterType.COUNT, 0, 0);
        KeyResult key = key(
                matrix(List.of(petals), new Cell[] {Cell.Numeric.range(4, 5)}, new Cell[] {Cell.Numeric.range(6, 8)}));
        assertThat(interval(key.key(), 0, 0).max()).isEqualTo(5);
        assertThat(interval(key.key(), 0, 1).min()).isEqualTo(6);
        assertThat(interval(key.key(), 0, 1).minExclusive()).isFalse();
    }

    /** 3.5 + 0.05 and 3.6 − 0.05 differ as binary fractions, and no limit lies between them. */
    @Test
    void rangesThatAreAsFarApartAsReadingsGoWrongAreNotSeparated() {
        MatrixCharacter fruit = length("fruit", 0, 0.1);
        Cell[] small = {Cell.Numeric.range(2.5, 3.5)};
        Cell[] large = {Cell.Numeric.range(3.6, 4.6)};
        KeyResult key = key(matrix(List.of(fruit), small, new Cell[] {Cell.NOT_APPLICABLE}, large));
        assertThat(key.key().couplets()).isEmpty();
        assertThat(key.proof().failures()).isEmpty();
        Cell[] larger = {Cell.Numeric.range(3.7, 4.6)};
        KeyResult apart = key(matrix(List.of(fruit), small, larger));
        assertThat(apart.key().couplets()).hasSize(1);
        assertThat(apart.proof().failures()).isEmpty();
    }

    private static Cell measured(double min, double max, int n, double mean, double sd) {
        return new Cell.Numeric(min, min, max, max, Optional.of(new Measured(n, mean, sd)));
    }

    private static Optional<Key.Doubt> doubt(Matrix matrix) {
        Key key = key(matrix).key();
        List<Key.Lead> leads = key.couplets().get(0).leads();
        assertThat(leads.get(0).statements().get(0).doubt())
                .isEqualTo(leads.get(1).statements().get(0).doubt());
        return leads.get(0).statements().get(0).doubt();
    }

    @Test
    void aLimitBetweenMeasuredRowsTellsWhereNotToDecide() {
        Cell small = measured(20, 24, 20, 22, 1);
        Cell large = measured(26, 30, 20, 28, 1);
        // The next of twenty: 2.0930 · √(1 + 1/20) SD from the mean with 95 % (table of Student’s t, 19 degrees).
        double reach = 2.0930 * Math.sqrt(1.05);
        Key.Doubt gap = doubt(matrix(List.of(length("l", 0, 0.2)), new Cell[] {small}, new Cell[] {large}))
                .orElseThrow();
        assertThat(gap.from()).isCloseTo(22 + reach - 0.2, within(1e-4));
        assertThat(gap.to()).isCloseTo(28 - reach + 0.2, within(1e-4));
        // P(T > 3 / √1.05) with 19 degrees lies between the tabulated 0.005 (2.861) and 0.0025 (3.174).
        assertThat(gap.wrong()).isBetween(0.0025, 0.005);

        // Few individuals: the next may well be beyond the limit, on either side.
        Key.Doubt overlap = doubt(
                        matrix(List.of(length("l", 0, 0)), new Cell[] {measured(21, 23, 3, 22, 1)}, new Cell[] {
                            measured(24.5, 25.5, 3, 25, 0.5)
                        }))
                .orElseThrow();
        double threes = 4.3027 * Math.sqrt(4.0 / 3);
        assertThat(overlap.from()).isCloseTo(25 - threes * 0.5, within(1e-3));
        assertThat(overlap.to()).isCloseTo(22 + threes, within(1e-3));
        assertThat(overlap.wrong()).isGreaterThan(0.05);

        MatrixCharacter teeth = MatrixCharacter.of("teeth", CharacterType.COUNT, 0, 0);
        Key.Doubt whole = doubt(matrix(List.of(teeth), new Cell[] {measured(4, 6, 10, 5, 0.8)}, new Cell[] {
                    measured(8, 12, 10, 10, 1.2)
                }))
                .orElseThrow();
        assertThat(List.of(whole.from(), whole.to())).containsExactly(7.0, 7.0);
    }

    @Test
    void referencesAndWideGapsLeaveNoDoubt() {
        List<MatrixCharacter> length = List.of(length("l", 0, 0.2));
        assertThat(doubt(matrix(
                        length, new Cell[] {Cell.Numeric.range(20, 24)}, new Cell[] {Cell.Numeric.range(26, 30)})))
                .isEmpty();
        assertThat(doubt(matrix(
                        length, new Cell[] {measured(3, 5, 20, 4, 0.5)}, new Cell[] {measured(50, 60, 20, 55, 2)})))
                .isEmpty();
    }

    @Test
    void aLimitIsHandyWhereEverybodysFingerLiesInTheGap() {
        List<MatrixCharacter> length = List.of(length("l", 0, 0));
        Cell[] small = {Cell.Numeric.range(5, 10)};
        Cell[] large = {Cell.Numeric.range(25, 40)};
        assertThat(handy(matrix(length, small, large))).contains(new Key.Handy(RuleOfThumb.FINGER_WIDTH, 1));
        assertThat(handy(matrix(length, small, new Cell[] {Cell.Numeric.range(16, 40)})))
                .as("a finger of 14 mm and one of 20 mm would part them otherwise")
                .isEmpty();
        Matrix dangerous = Matrix.of(
                List.of(
                        new MatrixRow("mild", 0, 0, 1, Hazard.NONE_KNOWN),
                        new MatrixRow("bane", 1, 1, 1, Hazard.SERIOUS)),
                length,
                new Cell[][] {small, large});
        assertThat(handy(dangerous)).isEmpty();
    }

    private static Optional<Key.Handy> handy(Matrix matrix) {
        return key(matrix)
                .key()
                .couplets()
                .get(0)
                .leads()
                .get(0)
                .statements()
                .get(0)
                .handy();
    }

    @Test
    void aCautiousKeyAsksWhatFewNewIndividualsCross() {
        Matrix matrix = matrix(
                List.of(length("shaky", 0, 0), length("firm", 1, 0)),
                new Cell[] {measured(21, 23, 3, 22, 1), measured(21, 23, 30, 22, 0.5)},
                new Cell[] {measured(24.5, 25.5, 3, 25, 0.5), measured(28, 30, 30, 29, 0.5)});
        KeyOptions cautious = QUICK.withObjective(KeyObjective.CAUTIOUS);
        Key key = ((Generated) GENERATOR.generate(matrix, cautious, CancelSignal.NEVER))
                .result()
                .key();
        assertThat(key.couplets().get(0).leads().get(0).statements().get(0).character())
                .isEqualTo(1);
    }

    @Test
    void whatNothingSeparatesEndsHonestly() {
        Cell any = Cell.Categorical.even(0b11, 2);
        KeyResult key = key(
                matrix(List.of(states("a", 0, 2)), new Cell[] {only(0, 2)}, new Cell[] {only(1, 2)}, new Cell[] {any}));
        assertThat(terminals(key.key()))
                .containsExactlyInAnyOrder(
                        new ToRows(List.of(0, 2), Key.Reason.INSEPARABLE),
                        new ToRows(List.of(1, 2), Key.Reason.INSEPARABLE));
        assertThat(key.figures().expectedSteps()).isCloseTo(1, within(1e-12));
        assertThat(key.reasons().get(0).duplicated()).containsExactly(2);
        assertThat(key.figures().entropyBound()).as("all three hang together").isZero();
    }

    @Test
    void sexesOfOneTaxonNeedNotBeParted() {
        List<MatrixRow> rows = List.of(
                new MatrixRow("male", 0, 0, 1, Hazard.NONE_KNOWN),
                new MatrixRow("female", 0, 0, 1, Hazard.NONE_KNOWN),
                new MatrixRow("other", 1, 1, 1, Hazard.NONE_KNOWN));
        Matrix matrix = Matrix.of(rows, List.of(states("horns", 0, 2), states("tail", 1, 2)), new Cell[][] {
            {only(0, 2), only(0, 2)}, {only(1, 2), only(0, 2)}, {only(1, 2), only(1, 2)}
        });
        KeyResult key = key(matrix);
        assertThat(key.key().couplets()).hasSize(1);
        assertThat(terminals(key.key()))
                .contains(new ToRows(List.of(0, 1), Key.Reason.ONE_TAXON), new ToRows(List.of(2), Key.Reason.NONE));
    }

    @Test
    void aDependentCharacterIsAskedAfterItsController() {
        MatrixCharacter wing = states("wing colour", 1, 2).when(List.of(new ControllingCondition(0, 0b10)));
        Matrix matrix = matrix(
                List.of(states("wings", 0, 2), wing),
                new Cell[] {only(1, 2), only(0, 2)},
                new Cell[] {only(1, 2), only(1, 2)},
                new Cell[] {only(0, 2), Cell.NOT_APPLICABLE});
        KeyResult key = key(matrix);
        assertThat(key.key()
                        .couplets()
                        .get(0)
                        .leads()
                        .get(0)
                        .statements()
                        .get(0)
                        .character())
                .isZero();
        assertThat(key.figures().longestPath()).isEqualTo(2);
        assertThat(key.proof().proven()).isTrue();
    }

    @Test
    void confirmingStatementsPartTheSameRowsAndTendenciesSayUsually() {
        double[] mostly = {0.95, 0.05};
        double[] seldom = {0.05, 0.95};
        Matrix matrix = matrix(
                List.of(states("margin", 0, 2), states("stem", 1, 2), states("hairs", 2, 2), states("same", 3, 2)),
                new Cell[] {only(0, 2), only(0, 2), new Cell.Categorical(0b11, 0b11, mostly), only(0, 2)},
                new Cell[] {only(1, 2), only(1, 2), new Cell.Categorical(0b11, 0b11, seldom), only(0, 2)});
        Key.Lead lead = key(matrix).key().couplets().get(0).leads().get(0);
        assertThat(lead.statements())
                .extracting(Key.Statement::role)
                .containsExactly(Role.DECIDING, Role.SUFFICIENT, Role.TENDENCY);
        assertThat(lead.statements()).extracting(Key.Statement::character).containsExactly(0, 1, 2);
        assertThat(lead.statements().get(2).atoms()).isEqualTo(new States(0b01));
    }

    /** Of two characters that part the same rows, the one is asked that is misread less by those, of whom it is asked. */
    @Test
    void theCharacterThatCanBeTrustedHereAndByTheseReadersIsAsked() {
        Misreading distrusted = new Misreading(0.01, 0.02, List.of(0.4, 0.4), List.of(0.4, 0.4));
        assertThat(asked(Misreading.of(0.04), distrusted, KeyObjective.CAUTIOUS))
                .isZero();
        assertThat(asked(distrusted, Misreading.of(0.04), KeyObjective.CAUTIOUS))
                .isEqualTo(1);
        Misreading hardForNovices = new Misreading(0.01, 0.4, List.of(), List.of());
        assertThat(asked(Misreading.of(0.04), hardForNovices, KeyObjective.EQUIPMENT))
                .isEqualTo(1);
        assertThat(asked(Misreading.of(0.04), hardForNovices, KeyObjective.CAUTIOUS))
                .as("a cautious key is for novices, too")
                .isZero();
        assertThat(asked(Misreading.of(0.04), hardForNovices, KeyObjective.BEGINNER))
                .isZero();
    }

    /** What is worst to mix up is parted where it is misread least, though that costs the others more. */
    @Test
    void aWorseWrongNameIsAskedForWhereItIsSeldomMisread() {
        List<MatrixCharacter> characters = new ArrayList<>();
        for (int c = 0; c < 2; c++) {
            // The first is misread more by rows 2 and 3, the second more by row 0: on the whole the second is the
            // better.
            List<Double> rates = c == 0 ? List.of(0.02, 0.02, 0.3, 0.3) : List.of(0.3, 0.02, 0.02, 0.02);
            characters.add(new MatrixCharacter(
                    "c" + c,
                    CharacterType.STATES,
                    2,
                    List.of(),
                    c,
                    0,
                    c,
                    1,
                    0,
                    new Misreading(0.05, 0.12, rates, rates),
                    0xFFF,
                    Handling.NONE,
                    true,
                    List.of(),
                    0,
                    List.of(),
                    CharacterRole.DECIDES,
                    1));
        }
        Cell[][] cells = {
            {only(0, 2), only(0, 2)}, {only(0, 2), only(0, 2)}, {only(1, 2), only(1, 2)}, {only(1, 2), only(1, 2)}
        };
        Matrix even = matrix(characters, cells);
        assertThat(firstAsked(even, KeyObjective.CAUTIOUS)).isEqualTo(1);
        assertThat(firstAsked(
                        even.withLosses(List.of(new MisidentificationCosts.Loss(0, 3, 10))), KeyObjective.CAUTIOUS))
                .isZero();
        assertThat(firstAsked(
                        even.withLosses(List.of(new MisidentificationCosts.Loss(0, 1, 10))), KeyObjective.CAUTIOUS))
                .as("a loss that this couplet does not risk")
                .isEqualTo(1);
        assertThat(firstAsked(even.withLosses(List.of(new MisidentificationCosts.Loss(0, 3, 10))), KeyObjective.FEWEST))
                .as("steps only: the first of equals")
                .isZero();
    }

    @Test
    void whatOnlyConfirmsIsNeverAskedAndWhatIsNeverFirstOnlyLater() {
        // Leaf and stem part the rows alike: the first of equals is asked.
        MatrixCharacter stem = states("stem", 1, 2);
        MatrixCharacter root = states("root", 2, 2);
        Cell[][] cells = {
            {only(0, 2), only(0, 2), only(0, 2)},
            {only(0, 2), only(0, 2), only(1, 2)},
            {only(1, 2), only(1, 2), only(0, 2)},
            {only(1, 2), only(1, 2), only(1, 2)}
        };
        for (CharacterRole role : CharacterRole.values()) {
            Matrix matrix = matrix(List.of(states("leaf", 0, 2).as(role), stem, root), cells);
            Key key = key(matrix).key();
            boolean asked = key.couplets().stream()
                    .anyMatch(c -> c.leads().get(0).statements().get(0).character() == 0);
            assertThat(key.couplets().get(0).leads().get(0).statements().get(0).character() == 0)
                    .as("%s first", role)
                    .isEqualTo(role == CharacterRole.DECIDES);
            assertThat(asked && !role.decides()).as("%s asked", role).isFalse();
            assertThat(new SupportPropagationProver().prove(matrix, key).failures())
                    .as(role.toString())
                    .isEmpty();
        }
        // Where nothing else separates, what only confirms ends the key, and what must not be first is first.
        for (CharacterRole role : List.of(CharacterRole.CONFIRMS, CharacterRole.NEVER_FIRST)) {
            Matrix alone =
                    matrix(List.of(states("leaf", 0, 2).as(role)), new Cell[] {only(0, 2)}, new Cell[] {only(1, 2)});
            Key key = key(alone).key();
            assertThat(key.couplets()).hasSize(role == CharacterRole.CONFIRMS ? 0 : 1);
            assertThat(new SupportPropagationProver().prove(alone, key).failures())
                    .isEmpty();
        }
    }

    private static int asked(Misreading first, Misreading second, KeyObjective objective) {
        List<MatrixCharacter> characters = new ArrayList<>();
        for (Misreading misreading : List.of(first, second)) {
            int at = characters.size();
            characters.add(new MatrixCharacter(
                    "c" + at,
                    CharacterType.STATES,
                    2,
                    List.of(),
                    at,
                    0,
                    at,
                    1,
                    0,
                    misreading,
                    0xFFF,
                    Handling.NONE,
                    true,
                    List.of(),
                    0,
                    List.of(),
                    CharacterRole.DECIDES,
                    1));
        }
        Cell[][] cells = {{only(0, 2), only(0, 2)}, {only(1, 2), only(1, 2)}};
        return firstAsked(matrix(characters, cells), objective);
    }

    private static int firstAsked(Matrix matrix, KeyObjective objective) {
        KeyOutcome outcome = GENERATOR.generate(matrix, QUICK.withObjective(objective), CancelSignal.NEVER);
        return ((Generated) outcome)
                .result()
                .key()
                .couplets()
                .get(0)
                .leads()
                .get(0)
                .statements()
                .get(0)
                .character();
    }

    @Test
    void cautiousKeysAvoidMisreadingAndDangerousHandling() {
        MatrixCharacter cut = new MatrixCharacter(
                "inside", CharacterType.STATES, 2, List.of(), 0, 0, 0, 1, 0, 0.01, 0xFFF, true, true);
        MatrixCharacter colour = new MatrixCharacter(
                "colour", CharacterType.STATES, 2, List.of(), 1, 0, 1, 1, 0, 0.3, 0xFFF, false, true);
        MatrixCharacter margin = new MatrixCharacter(
                "margin", CharacterType.STATES, 2, List.of(), 2, 0, 2, 1, 0, 0.02, 0xFFF, false, true);
        List<MatrixRow> rows = List.of(
                new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS), new MatrixRow("mild", 1, 1, 1, Hazard.NONE_KNOWN));
        Cell[][] cells = {{only(0, 2), only(0, 2), only(0, 2)}, {only(1, 2), only(1, 2), only(1, 2)}};
        KeyOutcome outcome = GENERATOR.generate(
                Matrix.of(rows, List.of(cut, colour, margin), cells),
                QUICK.withObjective(KeyObjective.CAUTIOUS),
                CancelSignal.NEVER);
        Key.Lead lead =
                ((Generated) outcome).result().key().couplets().get(0).leads().get(0);
        assertThat(lead.statements().get(0).character())
                .as("the margin is safe and seldom misread")
                .isEqualTo(2);
        assertThat(lead.statements())
                .extracting(Key.Statement::character)
                .as("cutting is not even a confirmation")
                .doesNotContain(0);
    }

    @Test
    void numberedInReadingOrderWithBackReferencesShorterLeadFirst() {
        Matrix matrix = new SyntheticMatrix(25, 14, 3, 0.1, 0.02, 0.2, 0, false).generate(3);
        Key key = key(matrix).key();
        for (int k = 0; k < key.couplets().size(); k++) {
            Key.Couplet couplet = key.couplets().get(k);
            assertThat(couplet.number()).isEqualTo(k + 1);
            assertThat(couplet.from().isPresent()).isEqualTo(k > 0);
            if (k > 0) {
                assertThat(couplet.from().getAsInt()).isLessThan(couplet.number());
            }
            if (couplet.leads().get(1).to() instanceof ToRows) {
                assertThat(couplet.leads().get(0).to())
                        .as("an end stands before a way on")
                        .isInstanceOf(ToRows.class);
            }
        }
    }

    @Test
    void weightsMakeCommonRowsCheap() {
        List<MatrixRow> rows = new ArrayList<>();
        Cell[][] cells = new Cell[4][2];
        for (int i = 0; i < 4; i++) {
            rows.add(new MatrixRow("row-" + i, i, i, i == 0 ? 97 : 1, Hazard.NONE_KNOWN));
            cells[i] = new Cell[] {only(i, 4), only(i / 2, 2)};
        }
        Matrix matrix = Matrix.of(rows, List.of(states("a", 0, 4), states("b", 1, 2)), cells);
        KeyOutcome outcome = GENERATOR.generate(matrix, QUICK.withEvenWeights(false), CancelSignal.NEVER);
        KeyResult common = ((Generated) outcome).result();
        assertThat(common.figures().expectedSteps()).isCloseTo(0.97 + 0.01 * (2 + 3 + 3), within(1e-12));
        assertThat(key(matrix).figures().expectedSteps()).isCloseTo(2, within(1e-12));
    }

    @Test
    void askingForTheImpossibleIsAnswered() {
        assertThat(GENERATOR.generate(matrix(List.of(states("a", 0, 2))), QUICK, CancelSignal.NEVER))
                .isInstanceOf(KeyOutcome.NoRows.class);
        Matrix large = new SyntheticMatrix(30, 20, 4, 0.1, 0, 0, 0, true).generate(1);
        assertThat(GENERATOR.generate(large, QUICK, () -> true)).isInstanceOf(KeyOutcome.Cancelled.class);
        Matrix loose = new SyntheticMatrix(120, 60, 3, 0.9, 0.4, 0, 0, true).generate(1);
        KeyOutcome outcome = GENERATOR.generate(loose, QUICK, CancelSignal.NEVER);
        assertThat(outcome).isInstanceOf(KeyOutcome.TooManyTerminals.class);
        assertThat(((KeyOutcome.TooManyTerminals) outcome).looseCharacters()).hasSize(8);
    }

    /** What a screen shows of a long search must only rise and must end at the whole. */
    @Test
    void progressRisesToTheWhole() {
        Matrix matrix = new SyntheticMatrix(60, 30, 4, 0.05, 0.03, 0.2, 0, true).generate(7);
        List<Double> told = new ArrayList<>();
        KeyOutcome outcome = GENERATOR.generate(matrix, QUICK, CancelSignal.NEVER, told::add);
        assertThat(told).isSorted().allMatch(share -> share > 0 && share <= 1);
        assertThat(told.get(told.size() - 1)).isCloseTo(1, within(1e-9));
        assertThat(outcome)
                .as("nobody sees the progress, and the key is the same")
                .isEqualTo(GENERATOR.generate(matrix, QUICK, CancelSignal.NEVER));
    }

    @Test
    void aSearchThatIsStoppedKeepsTheBestSoFarIfThereIsOne() {
        Matrix matrix = new SyntheticMatrix(60, 30, 4, 0.05, 0.03, 0.2, 0, true).generate(7);
        double[] done = new double[1];
        KeyOutcome early = GENERATOR.generate(matrix, QUICK, () -> done[0] > 1e-4, share -> done[0] = share);
        assertThat(early).isEqualTo(new KeyOutcome.Cancelled());

        done[0] = 0;
        KeyOptions relatives = QUICK.withObjective(KeyObjective.RELATIVES);
        KeyOutcome late = GENERATOR.generate(matrix, relatives, () -> done[0] > 0.5, share -> done[0] = share);
        assertThat(done[0]).as("it stops soon after it was asked").isBetween(0.5, 0.7);
        KeyResult kept = ((Generated) late).result();
        assertThat(kept.figures().completion()).isEqualTo(Completion.CANCELLED);
        assertThat(kept.proof().proven()).isTrue();
    }

    @Test
    void theBestSoFarNeverGetsWorse() {
        Matrix matrix = new SyntheticMatrix(60, 30, 4, 0.05, 0.03, 0.2, 0, true).generate(7);
        List<KeyResult> soFar = new ArrayList<>();
        KeyOptions fewest = QUICK.withObjective(KeyObjective.FEWEST);
        KeyOutcome last =
                GENERATOR.generate(matrix, fewest, CancelSignal.NEVER, Progress.UNSEEN, key -> soFar.add(key.get()));
        soFar.add(((Generated) last).result());
        assertThat(soFar).hasSizeGreaterThan(3).allMatch(key -> key.proof().proven());
        assertThat(soFar.get(0).figures().completion()).isEqualTo(Completion.CANCELLED);
        assertThat(soFar)
                .isSortedAccordingTo(Comparator.comparingDouble(
                                (KeyResult key) -> Math.rint(1e9 * key.figures().expectedSteps()))
                        .reversed());
    }

    private static KeyResult.CoupletReason at(KeyResult key, List<Integer> rows) {
        return key.reasons().stream()
                .filter(reason -> reason.rows().equals(rows))
                .findFirst()
                .orElseThrow();
    }

    /** The character that another one takes the place of, and those of the couplets above, each at its place. */
    private static List<KeyOptions.SetQuestion> set(KeyResult key, Key.Couplet couplet, int character) {
        List<KeyOptions.SetQuestion> set = new ArrayList<>();
        Key.Couplet here = couplet;
        int asked = character;
        while (here.from().isPresent()) {
            Set<Integer> rows = Set.copyOf(key.reasons().get(here.number() - 1).rows());
            set.add(new KeyOptions.SetQuestion(rows, asked));
            here = key.key().couplets().get(here.from().getAsInt() - 1);
            asked = key.reasons().get(here.number() - 1).character();
        }
        set.add(new KeyOptions.SetQuestion(Set.of(), asked));
        return set;
    }

    @ParameterizedTest
    @CsvSource({"11", "12", "13", "14"})
    void whateverElseCouldBeAskedAtACoupletIsAskedThereWhenItIsSet(long seed) {
        Matrix matrix = new SyntheticMatrix(9, 12, 3, 0.1, 0, 0.2, 0, true).generate(seed);
        KeyOptions relatives = QUICK.withObjective(KeyObjective.RELATIVES);
        KeyResult free = ((Generated) GENERATOR.generate(matrix, relatives, CancelSignal.NEVER)).result();
        int tried = 0;
        for (KeyResult.CoupletReason reason : free.reasons()) {
            Key.Couplet couplet = free.key().couplets().get(reason.couplet() - 1);
            List<KeyOptions.SetQuestion> way = set(free, couplet, 0);
            Set<Set<Integer>> places =
                    way.stream().map(KeyOptions.SetQuestion::rows).collect(Collectors.toSet());
            boolean again =
                    free.reasons().stream().filter(r -> r.rows().size() == 9).count() > 1;
            if (again || places.size() < way.size()) {
                // A question that loses no row on one side leads to a place that cannot be told from its own.
                continue;
            }
            for (KeyResult.Alternative other : reason.alternatives()) {
                KeyOptions options = relatives.withQuestions(set(free, couplet, other.character()));
                KeyResult kept = ((Generated) GENERATOR.generate(matrix, options, CancelSignal.NEVER)).result();
                KeyResult.CoupletReason there = at(kept, reason.rows());
                assertThat(there.character()).isEqualTo(other.character()).isNotEqualTo(reason.character());
                assertThat(there.alternatives())
                        .as("what else could be asked is still told")
                        .isNotEmpty();
                assertThat(kept.proof().proven()).isTrue();
                tried++;
            }
        }
        assertThat(tried).isGreaterThan(10);
    }

    @Test
    void aQuestionThatSeparatesNothingIsNotAskedBecauseItWasSet() {
        Matrix matrix = matrix(
                List.of(states("same", 0, 2), states("differs", 1, 2)),
                new Cell[] {only(0, 2), only(0, 2)},
                new Cell[] {only(0, 2), only(1, 2)});
        KeyOptions set = QUICK.withQuestions(List.of(new KeyOptions.SetQuestion(Set.of(), 0)));
        KeyResult made = ((Generated) GENERATOR.generate(matrix, set, CancelSignal.NEVER)).result();
        assertThat(made.reasons().get(0).character()).isEqualTo(1);
        assertThat(made.proof().proven()).isTrue();
    }
}
