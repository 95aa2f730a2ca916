package org.polyclave.core.identify;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.RecordedStates;
import org.polyclave.core.testkit.SyntheticMatrix;

class AnyOrderIdentifierTest {
    static LongStream seeds() {
        return LongStream.rangeClosed(1, 40);
    }

    private static List<Answer> answersOf(Matrix matrix, int row, int count, Random random) {
        List<Answer> answers = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount() && answers.size() < count; c++) {
            if (matrix.cell(row, c) instanceof Cell.Categorical shown) {
                int state = Integer.numberOfTrailingZeros(shown.support());
                answers.add(new Answer(
                        c, new Observation.Seen(1 << state), random.nextBoolean() ? Certainty.SURE : Certainty.LIKELY));
            } else if (matrix.cell(row, c) instanceof Cell.Numeric range) {
                answers.add(new Answer(c, new Observation.MeasuredObservation(range.low(), 0.5), Certainty.SURE));
            }
        }
        return answers;
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void contributionsAddUpToTheScoreAndPosteriorsToOne(long seed) {
        Matrix matrix = new SyntheticMatrix(15, 12, 4, 0.2, 0.15, 0.3, 0.3, false).generate(seed);
        Random random = new Random(seed);
        Identification found = new AnyOrderIdentifier(matrix)
                .identify(answersOf(matrix, random.nextInt(15), 6, random), IdentifyOptions.WEIGH);
        double total = found.outside();
        for (Standing standing : found.standings()) {
            double sum = standing.prior();
            for (Identification.Contribution contribution : standing.contributions()) {
                sum += contribution.bits();
            }
            assertThat(standing.score()).isCloseTo(sum, within(1e-9));
            total += standing.posterior();
        }
        assertThat(total).isCloseTo(1, within(1e-9));
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void theOrderOfAnswersDoesNotMatter(long seed) {
        Matrix matrix = new SyntheticMatrix(12, 10, 4, 0.2, 0.15, 0.3, 0.3, false).generate(seed);
        List<Answer> answers = answersOf(matrix, 3, 5, new Random(seed));
        List<Answer> reversed = new ArrayList<>(answers);
        java.util.Collections.reverse(reversed);
        AnyOrderIdentifier identifier = new AnyOrderIdentifier(matrix);
        assertThat(identifier.identify(reversed, IdentifyOptions.WEIGH))
                .usingRecursiveComparison()
                .isEqualTo(identifier.identify(answers, IdentifyOptions.WEIGH));
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void misreadingsOfAStateSumToOne(long seed) {
        Matrix matrix = new SyntheticMatrix(8, 8, 5, 0.6, 0, 0, 0, false).generate(seed);
        for (int c = 0; c < matrix.characterCount(); c++) {
            double[] outcomes = RecordedStates.of(matrix.character(c), (Cell.Categorical) matrix.cell(0, c), 0.2);
            assertThat(java.util.Arrays.stream(outcomes).sum()).isCloseTo(1, within(1e-12));
        }
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void aTrueSpecimenIsNeverStruckOutAndSeldomOutranked(long seed) {
        Matrix matrix = new SyntheticMatrix(20, 14, 4, 0.2, 0.1, 0.3, 0, false).generate(seed);
        Random random = new Random(seed);
        int truth = random.nextInt(20);
        List<Answer> answers = answersOf(matrix, truth, 10, random);
        Identification struck =
                new AnyOrderIdentifier(matrix).identify(answers, new IdentifyOptions(true, 0, 0xFFF, new boolean[0]));
        Standing own = struck.standings().stream()
                .filter(s -> s.row() == truth)
                .findFirst()
                .orElseThrow();
        assertThat(own.mismatches()).isZero();
        assertThat(own.struckOut()).isFalse();
        Identification weighed = new AnyOrderIdentifier(matrix).identify(answers, IdentifyOptions.WEIGH);
        assertThat(weighed.standings().subList(0, 3)).extracting(Standing::row).contains(truth);
    }

    /** A dangerous row and a harmless one that differ in {@code n} characters of as many organs. */
    private static Matrix pair(int n, boolean weak) {
        List<MatrixCharacter> characters = new ArrayList<>();
        Cell[][] cells = new Cell[3][n];
        boolean[][] weakCells = new boolean[3][n];
        for (int c = 0; c < n; c++) {
            characters.add(MatrixCharacter.of("c" + c, CharacterType.STATES, 2, c));
            cells[0][c] = Cell.Categorical.single(0, 2);
            cells[1][c] = Cell.Categorical.single(1, 2);
            cells[2][c] = Cell.Categorical.single(1, 2);
            weakCells[0][c] = weak;
        }
        return Matrix.of(
                List.of(
                        new MatrixRow("bane", 0, 0, 1e-6, Hazard.LIFE_THREATENING),
                        new MatrixRow("mild", 1, 1, 1, Hazard.NONE_KNOWN),
                        new MatrixRow("calm", 2, 2, 1, Hazard.NONE_KNOWN)),
                characters,
                cells,
                weakCells,
                new int[weakCells.length][characters.size()]);
    }

    private static boolean ruledOut(Matrix matrix, int answered, Certainty certainty) {
        return ruledOut(matrix, answered, certainty, 0);
    }

    /** @param rough how many of the answers are told by rules of thumb */
    private static boolean ruledOut(Matrix matrix, int answered, Certainty certainty, int rough) {
        List<Answer> answers = new ArrayList<>();
        for (int c = 0; c < answered; c++) {
            answers.add(new Answer(c, new Observation.Seen(0b10), certainty, c < rough));
        }
        return new AnyOrderIdentifier(matrix)
                .identify(answers, IdentifyOptions.WEIGH)
                .margins()
                .get(0)
                .ruledOut();
    }

    @Test
    void dangerIsRuledOutOnlyByEnoughSureIndependentObservations() {
        Matrix firm = pair(16, false);
        assertThat(ruledOut(firm, 0, Certainty.SURE)).as("rarity alone").isFalse();
        assertThat(ruledOut(firm, 1, Certainty.SURE)).isFalse();
        assertThat(ruledOut(firm, 16, Certainty.SURE)).isTrue();
        assertThat(ruledOut(firm, 16, Certainty.LIKELY)).as("not sure").isFalse();
        assertThat(ruledOut(pair(16, true), 16, Certainty.SURE))
                .as("on weak cells")
                .isFalse();
        assertThat(ruledOut(firm, 16, Certainty.SURE, 16))
                .as("by rules of thumb")
                .isFalse();
        assertThat(ruledOut(firm, 16, Certainty.SURE, 15))
                .as("by one sure look and any number of rules of thumb")
                .isFalse();
    }

    @Test
    void aRuleOfThumbMaySpeakForADangerousRow() {
        Matrix matrix = pair(16, false);
        List<Answer> answers = new ArrayList<>();
        for (int c = 0; c < 12; c++) {
            answers.add(new Answer(c, new Observation.Seen(0b10), Certainty.SURE));
        }
        AnyOrderIdentifier identifier = new AnyOrderIdentifier(matrix);
        double before = identifier
                .identify(answers, IdentifyOptions.WEIGH)
                .margins()
                .get(0)
                .support();
        answers.add(new Answer(12, new Observation.Seen(0b01), Certainty.SURE, true));
        double after = identifier
                .identify(answers, IdentifyOptions.WEIGH)
                .margins()
                .get(0)
                .support();
        assertThat(after).isLessThan(before);
    }

    @Test
    void dangerousObservationsAreNotSuggestedWhileDangerIsLikely() {
        MatrixCharacter crush = new MatrixCharacter(
                "crush", CharacterType.STATES, 2, List.of(), 0, 0, 0, 1, 0, 0.05, 0xFFF, true, true);
        Cell[][] cells = {{Cell.Categorical.single(0, 2)}, {Cell.Categorical.single(1, 2)}};
        for (Hazard hazard : List.of(Hazard.SERIOUS, Hazard.NONE_KNOWN)) {
            Matrix matrix = Matrix.of(
                    List.of(new MatrixRow("a", 0, 0, 1, hazard), new MatrixRow("b", 1, 1, 1, Hazard.NONE_KNOWN)),
                    List.of(crush),
                    cells);
            Identification start = new AnyOrderIdentifier(matrix).identify(List.of(), IdentifyOptions.WEIGH);
            assertThat(start.questions()).hasSize(hazard == Hazard.SERIOUS ? 0 : 1);
        }
    }

    /** Answers by rules of thumb make a danger look unlikely; what is dangerous to do stays unsuggested all the same. */
    @Test
    void aRuleOfThumbDoesNotMakeADangerousObservationHarmless() {
        for (boolean rough : new boolean[] {true, false}) {
            List<MatrixCharacter> characters = new ArrayList<>();
            Cell[][] cells = new Cell[2][9];
            List<Answer> answers = new ArrayList<>();
            for (int c = 0; c < 9; c++) {
                boolean crush = c == 8;
                characters.add(new MatrixCharacter(
                        "c" + c, CharacterType.STATES, 2, List.of(), c, 0, c, 1, 0, 0.05, 0xFFF, crush, true));
                cells[0][c] = Cell.Categorical.single(0, 2);
                cells[1][c] = Cell.Categorical.single(1, 2);
                if (!crush) {
                    answers.add(new Answer(c, new Observation.Seen(0b10), Certainty.SURE, rough));
                }
            }
            Matrix matrix = Matrix.of(
                    List.of(
                            new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS),
                            new MatrixRow("mild", 1, 1, 1, Hazard.NONE_KNOWN)),
                    characters,
                    cells);
            Identification found = new AnyOrderIdentifier(matrix).identify(answers, IdentifyOptions.WEIGH);
            assertThat(found.standings().get(1).posterior()).isLessThan(0.01);
            assertThat(found.questions()).hasSize(rough ? 0 : 1);
        }
    }
}
