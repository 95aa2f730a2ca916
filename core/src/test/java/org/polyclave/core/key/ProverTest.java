package org.polyclave.core.key;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.polyclave.core.testkit.SyntheticMatrix.cells;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;
import org.polyclave.core.key.Atoms.Interval;
import org.polyclave.core.key.Atoms.States;
import org.polyclave.core.key.Key.Couplet;
import org.polyclave.core.key.Key.Lead;
import org.polyclave.core.key.Key.Reason;
import org.polyclave.core.key.Key.Role;
import org.polyclave.core.key.Key.Statement;
import org.polyclave.core.key.Key.Target;
import org.polyclave.core.key.Key.ToCouplet;
import org.polyclave.core.key.Key.ToRows;
import org.polyclave.core.key.Proof.Failure;
import org.polyclave.core.key.Proof.Kind;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;

/** Each way in which a key can be wrong is found and named with its place. */
class ProverTest {
    private static final double INF = Double.POSITIVE_INFINITY;
    private static final int RED = 0b01;
    private static final int BLUE = 0b10;
    private static final MatrixCharacter COLOUR = MatrixCharacter.of("colour", CharacterType.STATES, 2, 0);
    private static final MatrixCharacter WIDTH = MatrixCharacter.of("width", CharacterType.LENGTH, 0, 1);
    private static final MatrixCharacter TEETH = MatrixCharacter.of("teeth", CharacterType.COUNT, 0, 2);

    /** Row 0 red and narrow with 2 or 3 teeth, row 1 blue and narrow with 4, row 2 red or blue and broad with 2. */
    private static Matrix matrix() {
        Cell either = Cell.Categorical.even(RED | BLUE, 2);
        return Matrix.of(rows(3), List.of(COLOUR, WIDTH, TEETH), new Cell[][] {
            {Cell.Categorical.single(0, 2), Cell.Numeric.range(1, 4), Cell.Numeric.range(2, 3)},
            {Cell.Categorical.single(1, 2), Cell.Numeric.range(2, 5), Cell.Numeric.range(4, 4)},
            {either, Cell.Numeric.range(8, 9), Cell.Numeric.range(2, 2)}
        });
    }

    private static List<MatrixRow> rows(int n) {
        List<MatrixRow> rows = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            rows.add(new MatrixRow("row-" + i, i, i, 1, Hazard.NONE_KNOWN));
        }
        return rows;
    }

    private static Lead lead(int character, Atoms atoms, Target to) {
        return new Lead(List.of(new Statement(character, atoms, Role.DECIDING)), to);
    }

    private static Target names(Integer... rows) {
        return new ToRows(List.of(rows), rows.length > 1 ? Reason.INSEPARABLE : Reason.NONE);
    }

    private static Couplet couplet(int number, int from, Lead... leads) {
        return new Couplet(number, from == 0 ? OptionalInt.empty() : OptionalInt.of(from), List.of(leads));
    }

    private static Atoms upTo(double max) {
        return Interval.closed(-INF, max);
    }

    private static Atoms moreThan(double min) {
        return new Interval(min, INF, true, false);
    }

    /** Width first, then colour: a good key. */
    private static List<Couplet> good() {
        return new ArrayList<>(List.of(
                couplet(1, 0, lead(1, upTo(6), new ToCouplet(2)), lead(1, moreThan(6), names(2))),
                couplet(2, 1, lead(0, new States(RED), names(0)), lead(0, new States(BLUE), names(1)))));
    }

    private static List<Failure> failures(List<Couplet> couplets) {
        return new SupportPropagationProver().prove(matrix(), Key.of(couplets)).failures();
    }

    private static Kind only(List<Couplet> couplets) {
        List<Failure> found = failures(couplets);
        assertThat(found).as(found.toString()).hasSize(1);
        return found.get(0).kind();
    }

    @Test
    void aGoodKeyIsProven() {
        Proof proof = new SupportPropagationProver().prove(matrix(), Key.of(good()));
        assertThat(proof.proven()).isTrue();
        assertThat(proof.observations()).as("row 0: 2, row 1: 2, row 2: 1").isEqualTo(5);
    }

    @Test
    void limitsThatOverlapAreRefusedOnlyWhereASpecimenCanFallBetween() {
        List<Couplet> key = good();
        key.set(0, couplet(1, 0, lead(1, upTo(7), new ToCouplet(2)), lead(1, moreThan(6), names(2))));
        assertThat(failures(key)).as("nobody is 6 to 7 wide").isEmpty();
        key.set(0, couplet(1, 0, lead(1, upTo(8.5), new ToCouplet(2)), lead(1, moreThan(6), names(2))));
        assertThat(failures(key))
                .contains(new Failure(
                        Kind.SEVERAL_LEADS,
                        OptionalInt.of(1),
                        OptionalInt.of(2),
                        OptionalInt.of(2),
                        OptionalInt.of(1),
                        Optional.of(new Interval(8, 8.5, false, true))));
    }

    @Test
    void anObservationThatNoLeadAcceptsIsNamed() {
        List<Couplet> key = good();
        key.set(0, couplet(1, 0, lead(1, upTo(3), new ToCouplet(2)), lead(1, moreThan(6), names(2))));
        assertThat(failures(key))
                .extracting(
                        Failure::kind, f -> f.row().orElse(-1), f -> f.couplet().orElse(-1))
                .contains(
                        org.assertj.core.groups.Tuple.tuple(Kind.NO_LEAD, 0, 1),
                        org.assertj.core.groups.Tuple.tuple(Kind.NO_LEAD, 1, 1));
    }

    @Test
    void aWrongNameIsFoundWithLeadAndRow() {
        List<Couplet> key = good();
        key.set(1, couplet(2, 1, lead(0, new States(RED), names(1)), lead(0, new States(BLUE), names(0))));
        assertThat(failures(key))
                .extracting(
                        Failure::kind,
                        f -> f.couplet().orElse(-1),
                        f -> f.lead().orElse(-1),
                        f -> f.row().orElse(-1))
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(Kind.WRONG_NAME, 2, 1, 0),
                        org.assertj.core.groups.Tuple.tuple(Kind.WRONG_NAME, 2, 2, 1),
                        org.assertj.core.groups.Tuple.tuple(Kind.NAMED_IN_VAIN, 2, 1, 1),
                        org.assertj.core.groups.Tuple.tuple(Kind.NAMED_IN_VAIN, 2, 2, 0));
    }

    @Test
    void aVariableRowMustBeNamedOnBothSides() {
        List<Couplet> key =
                List.of(couplet(1, 0, lead(0, new States(RED), names(0, 2)), lead(0, new States(BLUE), names(1))));
        assertThat(failures(key))
                .extracting(
                        Failure::kind, f -> f.lead().orElse(-1), f -> f.row().orElse(-1))
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(Kind.WRONG_NAME, 2, 2),
                        org.assertj.core.groups.Tuple.tuple(Kind.COULD_BE_SEPARATED, 1, 2));
    }

    @Test
    void faultsOfShape() {
        List<Couplet> loop = good();
        loop.set(1, couplet(2, 1, lead(0, new States(RED), names(0)), lead(0, new States(BLUE), new ToCouplet(1))));
        assertThat(failures(loop)).extracting(Failure::kind).contains(Kind.LOOP, Kind.ROW_MISSING);

        List<Couplet> dangling = good();
        dangling.set(1, couplet(2, 1, lead(0, new States(RED), names(0)), lead(0, new States(BLUE), new ToCouplet(9))));
        assertThat(failures(dangling)).extracting(Failure::kind).contains(Kind.DANGLING_TARGET, Kind.ROW_MISSING);

        List<Couplet> unreached = good();
        unreached.add(couplet(3, 0, lead(0, new States(RED), names(0)), lead(0, new States(BLUE), names(1))));
        assertThat(only(unreached)).isEqualTo(Kind.UNREACHED_COUPLET);

        List<Couplet> twice = good();
        twice.add(couplet(2, 1, lead(0, new States(RED), names(0)), lead(0, new States(BLUE), names(1))));
        assertThat(failures(twice)).extracting(Failure::kind).contains(Kind.DUPLICATE_NUMBER);

        List<Couplet> back = good();
        back.set(1, couplet(2, 2, lead(0, new States(RED), names(0)), lead(0, new States(BLUE), names(1))));
        assertThat(only(back)).isEqualTo(Kind.WRONG_BACK_REFERENCE);

        List<Couplet> single = good();
        single.set(0, couplet(1, 0, lead(1, Interval.ALL, new ToCouplet(2))));
        assertThat(failures(single)).extracting(Failure::kind).contains(Kind.TOO_FEW_LEADS);
    }

    @Test
    void aTerminalThatNobodyReachesIsNamed() {
        List<Couplet> key = good();
        key.set(1, couplet(2, 1, lead(0, new States(RED), names(0)), lead(0, new States(BLUE), new ToCouplet(3))));
        key.add(couplet(3, 2, lead(2, upTo(1), names(0)), lead(2, Interval.closed(2, INF), names(1))));
        assertThat(only(key)).isEqualTo(Kind.UNREACHED_TERMINAL);
    }

    @Test
    void leadsWithSeveralStatementsAreCheckedTogether() {
        Statement red = new Statement(0, new States(RED), Role.DECIDING);
        Statement narrow = new Statement(1, upTo(6), Role.DECIDING);
        Lead both = new Lead(List.of(red, narrow), names(0));
        Couplet leaky = couplet(1, 0, both, lead(1, moreThan(6), names(2)));
        assertThat(failures(List.of(leaky)))
                .as("a narrow blue specimen has no lead")
                .extracting(Failure::kind)
                .contains(Kind.NO_LEAD);
        Couplet three = new Couplet(
                1,
                OptionalInt.empty(),
                List.of(
                        both,
                        new Lead(List.of(new Statement(0, new States(BLUE), Role.DECIDING), narrow), names(1)),
                        lead(1, moreThan(6), names(2))));
        assertThat(failures(List.of(three))).as("polytomous, and complete").isEmpty();
    }

    private static List<Couplet> confirmed(Role role, Atoms narrow, Atoms broad) {
        List<Couplet> key = good();
        Lead first = new Lead(
                List.of(new Statement(1, upTo(6), Role.DECIDING), new Statement(2, narrow, role)), new ToCouplet(2));
        Lead second = new Lead(
                List.of(new Statement(1, moreThan(6), Role.DECIDING), new Statement(2, broad, role)), names(2));
        key.set(0, couplet(1, 0, first, second));
        return key;
    }

    /** Narrow rows have 2 to 4 teeth, the broad one 2. */
    @Test
    void confirmingStatementsAreHeldToTheMatrix() {
        Atoms many = Interval.closed(3, INF);
        assertThat(failures(confirmed(Role.TENDENCY, many, upTo(2))))
                .as("usually")
                .isEmpty();
        assertThat(failures(confirmed(Role.TENDENCY, upTo(2), many)))
                .as("the wrong way round")
                .extracting(Failure::kind, f -> f.lead().orElse(-1))
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(Kind.CONTRARY_TENDENCY, 1),
                        org.assertj.core.groups.Tuple.tuple(Kind.CONTRARY_TENDENCY, 2));
        assertThat(failures(confirmed(Role.SUFFICIENT, many, upTo(2))))
                .as("a narrow one may have 2 teeth: its own lead is not always right, and the other's holds for it")
                .extracting(
                        Failure::kind, f -> f.lead().orElse(-1), f -> f.row().orElse(-1))
                .containsExactlyInAnyOrder(
                        org.assertj.core.groups.Tuple.tuple(Kind.NOT_SUFFICIENT, 1, 0),
                        org.assertj.core.groups.Tuple.tuple(Kind.NOT_SUFFICIENT, 2, 0));
        List<Couplet> colours = good();
        Statement red = new Statement(0, new States(RED), Role.DECIDING);
        Statement blue = new Statement(0, new States(BLUE), Role.DECIDING);
        Statement few = new Statement(2, upTo(3), Role.SUFFICIENT);
        Statement four = new Statement(2, Interval.closed(4, INF), Role.SUFFICIENT);
        colours.set(1, couplet(2, 1, new Lead(List.of(red, few), names(0)), new Lead(List.of(blue, four), names(1))));
        assertThat(failures(colours)).as("teeth alone separate them").isEmpty();
    }

    @Test
    void oneTerminalThatNamesEverythingIsNoKey() {
        List<Couplet> everything =
                List.of(couplet(1, 0, lead(1, upTo(6), names(0, 1, 2)), lead(1, moreThan(6), names(0, 1, 2))));
        assertThat(failures(everything))
                .extracting(Failure::kind)
                .contains(Kind.NAMED_IN_VAIN, Kind.COULD_BE_SEPARATED);
        Key whole = new Key(List.of(), new ToRows(List.of(0, 1, 2), Reason.INSEPARABLE));
        assertThat(new SupportPropagationProver().prove(matrix(), whole).failures())
                .extracting(Failure::kind)
                .containsExactly(Kind.COULD_BE_SEPARATED);
    }

    @Test
    void aRangeReachesAsFarAsReadingsAreOff() {
        List<Couplet> close = List.of(
                couplet(1, 0, lead(1, upTo(5.25), new ToCouplet(2)), lead(1, moreThan(5.25), names(2))),
                couplet(2, 1, lead(0, new States(RED), names(0)), lead(0, new States(BLUE), names(1))));
        for (double off : new double[] {0, 0.4, 1}) {
            Matrix plain = matrix();
            Matrix matrix = Matrix.of(
                    plain.rows(),
                    List.of(COLOUR, WIDTH.withUncertainty(off), TEETH.withUncertainty(off)),
                    cells(plain));
            List<Failure> found =
                    new SupportPropagationProver().prove(matrix, Key.of(close)).failures();
            assertThat(found)
                    .extracting(Failure::kind, f -> f.row().orElse(-1))
                    .as("row 1 is up to 5 wide, read within %s", off)
                    .isEqualTo(off < 0.5 ? List.of() : List.of(tuple(Kind.WRONG_NAME, 1)));
        }
    }

    @Test
    void nobodyHandlesTwoDangersToDistinguishThem() {
        MatrixCharacter root =
                MatrixCharacter.of("root", CharacterType.STATES, 2, 0).by(Handling.DIG);
        Cell[][] cells = {{Cell.Categorical.single(0, 2)}, {Cell.Categorical.single(1, 2)}};
        Key stop = new Key(List.of(), new ToRows(List.of(0, 1), Reason.INSEPARABLE));
        for (Hazard other : List.of(Hazard.SERIOUS, Hazard.NONE_KNOWN)) {
            Matrix matrix = Matrix.of(
                    List.of(new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS), new MatrixRow("other", 1, 1, 1, other)),
                    List.of(root),
                    cells);
            assertThat(new SupportPropagationProver().prove(matrix, stop).failures())
                    .as("beside what is %s", other)
                    .hasSize(other.isDangerous() ? 0 : 1);
        }
    }

    @Test
    void countsHaveNothingBetweenWholeNumbers() {
        List<Couplet> key = List.of(
                couplet(1, 0, lead(2, upTo(3), new ToCouplet(2)), lead(2, Interval.closed(4, INF), names(1))),
                couplet(2, 1, lead(1, upTo(6), names(0)), lead(1, moreThan(6), names(2))));
        assertThat(failures(key)).as("between 3 and 4 there is no count").isEmpty();
    }

    @Test
    void aRowWithoutTheCharacterMayFollowEitherLead() {
        MatrixCharacter winged = MatrixCharacter.of("winged", CharacterType.STATES, 2, 0);
        MatrixCharacter wing = MatrixCharacter.of("wing colour", CharacterType.STATES, 2, 1)
                .when(List.of(new ControllingCondition(0, 0b10)));
        Matrix matrix = Matrix.of(rows(3), List.of(winged, wing), new Cell[][] {
            {Cell.Categorical.single(1, 2), Cell.Categorical.single(0, 2)},
            {Cell.Categorical.single(1, 2), Cell.Categorical.single(1, 2)},
            {Cell.Categorical.single(0, 2), Cell.UNKNOWN}
        });
        Key direct =
                Key.of(List.of(couplet(1, 0, lead(1, new States(RED), names(0)), lead(1, new States(BLUE), names(1)))));
        assertThat(new SupportPropagationProver().prove(matrix, direct).failures())
                .as("the wingless row ends at both, named at neither")
                .extracting(Failure::kind)
                .contains(Kind.WRONG_NAME, Kind.ROW_MISSING);
        Key asked = Key.of(List.of(
                couplet(1, 0, lead(0, new States(0b10), new ToCouplet(2)), lead(0, new States(0b01), names(2))),
                couplet(2, 1, lead(1, new States(RED), names(0)), lead(1, new States(BLUE), names(1)))));
        assertThat(new SupportPropagationProver().prove(matrix, asked).proven()).isTrue();
    }
}
