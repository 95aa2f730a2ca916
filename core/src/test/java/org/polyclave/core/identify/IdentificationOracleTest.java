package org.polyclave.core.identify;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Identification.Kind;
import org.polyclave.core.identify.Identification.Question;
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

/** Identification on random studies with everything a study may hold, against its definitions written out. */
class IdentificationOracleTest {
    private static final List<Certainty> CERTAINTIES = List.of(Certainty.values());
    private static final int ROWS = 9;
    private static final int CHARACTERS = 9;
    private static final int PARTS = 4;
    /** Mostly those that decide. */
    private static final List<CharacterRole> ROLES = List.of(
            CharacterRole.DECIDES,
            CharacterRole.DECIDES,
            CharacterRole.DECIDES,
            CharacterRole.NEVER_FIRST,
            CharacterRole.CONFIRMS,
            CharacterRole.NECESSARY);

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 150);
    }

    private static Matrix matrix(Random random) {
        List<MatrixCharacter> characters = new ArrayList<>();
        for (int c = 0; c < CHARACTERS; c++) {
            characters.add(character(c, characters, random));
        }
        List<MatrixRow> rows = new ArrayList<>();
        Cell[][] cells = new Cell[ROWS][CHARACTERS];
        for (int i = 0; i < ROWS; i++) {
            // Some have a name in common, and some are not met all year.
            int name = random.nextInt(ROWS);
            rows.add(new MatrixRow("row-" + i, name, i, 1 + random.nextInt(9), Hazard.NONE_KNOWN)
                    .in(random.nextInt(3) == 0 ? 1 + random.nextInt(0xFFF) : 0));
            for (int c = 0; c < CHARACTERS; c++) {
                cells[i][c] = cell(characters.get(c), random);
            }
        }
        return Matrix.of(rows, characters, cells);
    }

    private static MatrixCharacter character(int c, List<MatrixCharacter> earlier, Random random) {
        CharacterType type = switch (random.nextInt(5)) {
            case 0 -> CharacterType.COUNT;
            case 1 -> CharacterType.LENGTH;
            default -> CharacterType.STATES;
        };
        int n = type.isNumeric() ? 0 : 1 + random.nextInt(5);
        List<ControllingCondition> when = new ArrayList<>();
        if (c > 0 && random.nextInt(3) == 0) {
            int controller = random.nextInt(c);
            int all = earlier.get(controller).allStates();
            if (Integer.bitCount(all) > 1) {
                when.add(new ControllingCondition(controller, 1 + random.nextInt(all - 1)));
            }
        }
        List<Integer> confusable = new ArrayList<>();
        for (int s = 0; s < n && n > 2; s++) {
            confusable.add(random.nextInt(2) * (1 << random.nextInt(n)) & ~(1 << s));
        }
        List<Double> own = new ArrayList<>();
        for (int i = 0; i < ROWS; i++) {
            own.add(random.nextInt(3) == 0 ? 0.45 : -1);
        }
        Misreading misreading = new Misreading(
                0.02 + 0.2 * random.nextDouble(), 0.3, random.nextBoolean() ? own : List.of(), List.of());
        int months = random.nextInt(4) == 0 ? 0b11 : MatrixCharacter.ALL_MONTHS;
        return new MatrixCharacter(
                "c" + c,
                type,
                n,
                when,
                random.nextInt(PARTS),
                0,
                random.nextInt(4),
                random.nextInt(4) * 0.5,
                0.5,
                misreading,
                months,
                Handling.NONE,
                true,
                confusable,
                0,
                c % 2 == 0 ? List.of() : List.of(PARTS),
                ROLES.get(random.nextInt(ROLES.size())),
                1);
    }

    private static Cell cell(MatrixCharacter character, Random random) {
        int kind = random.nextInt(12);
        if (kind < 2) {
            return kind == 0 ? Cell.UNKNOWN : Cell.NOT_APPLICABLE;
        }
        if (character.type().isNumeric()) {
            double low = 2 + random.nextInt(12);
            double width = random.nextInt(5);
            return new Cell.Numeric(low - random.nextInt(2), low, low + width, low + width + random.nextInt(2));
        }
        int n = character.stateCount();
        double[] shares = new double[n];
        int support = 0;
        for (int k = 0; k < 1 + random.nextInt(2); k++) {
            int state = random.nextInt(n);
            shares[state] += 1;
            support |= 1 << state;
        }
        double total = 0;
        for (int s = 0; s < n; s++) {
            shares[s] *= 1 + random.nextInt(4);
            total += shares[s];
        }
        for (int s = 0; s < n; s++) {
            shares[s] /= total;
        }
        int mistaken = random.nextInt(3) == 0 ? 1 << random.nextInt(n) : 0;
        return new Cell.Categorical(support, support | mistaken, shares);
    }

    private static List<Answer> answers(Matrix matrix, Random random) {
        List<Answer> answers = new ArrayList<>();
        for (int c = 0; c < CHARACTERS; c++) {
            if (random.nextInt(3) == 0) {
                List<Look> looks = new ArrayList<>();
                for (int l = 0; l < 1 + random.nextInt(2) * random.nextInt(3); l++) {
                    looks.add(new Look(observation(matrix.character(c), random), CERTAINTIES.get(random.nextInt(3))));
                }
                answers.add(new Answer(
                        c,
                        looks.get(0).observation(),
                        looks.get(0).certainty(),
                        random.nextInt(5) == 0,
                        looks.subList(1, looks.size())));
            }
        }
        return answers;
    }

    private static Observation observation(MatrixCharacter character, Random random) {
        return character.type().isNumeric()
                ? new Observation.MeasuredObservation(random.nextInt(20), 0.5 * random.nextInt(4))
                : new Observation.Seen(1 + random.nextInt(character.allStates()));
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void everyNumberIsTheDefinitions(long seed) {
        Random random = new Random(seed);
        Matrix matrix = matrix(random);
        List<Answer> answers = answers(matrix, random);
        boolean[] unavailable = {false, random.nextBoolean(), random.nextBoolean()};
        int months = random.nextBoolean() ? 0xFFF : 0b1100;
        IdentifyOptions options = new IdentifyOptions(false, 0, months, unavailable, random.nextInt(4) > 0);

        Identification found = new AnyOrderIdentifier(matrix).identify(answers, options);

        IdentificationOracle oracle = new IdentificationOracle(matrix, answers);
        IdentificationOracle.Weighed weighed = oracle.weigh(options);
        assertThat(found.outside()).isCloseTo(weighed.posterior()[ROWS], within(1e-9));
        for (Standing standing : found.standings()) {
            int row = standing.row();
            assertThat(standing.posterior()).isCloseTo(weighed.posterior()[row], within(1e-9));
            assertThat(standing.mismatches()).as("mismatches of " + row).isEqualTo(oracle.mismatches(row));
            assertThat(standing.namePosterior()).isCloseTo(weighed.ofName(matrix, row), within(1e-9));
            assertThat(standing.outOfSeason()).isEqualTo(oracle.isOutOfSeason(row, months));
            assertThat(standing.compared()).isEqualTo(oracle.compared(row));
            assertThat(standing.contributions()).hasSameSizeAs(weighed.bits());
            double bits = 0;
            for (int k = 0; k < weighed.bits().size(); k++) {
                bits += standing.contributions().get(k).bits();
                assertThat(standing.contributions().get(k).bits())
                        .isCloseTo(weighed.bits().get(k)[row], within(1e-9));
            }
            assertThat(standing.prior() + bits).as("they add up").isCloseTo(standing.score(), within(1e-9));
        }
        assertThat(found.standings())
                .isSortedAccordingTo(Comparator.comparingDouble((Standing s) -> -rounded(s.namePosterior()))
                        .thenComparing(s -> firstOfName(matrix, s.row()))
                        .thenComparingDouble(s -> -rounded(s.score()))
                        .thenComparing(Standing::row));
        concludes(matrix, oracle, found, answers);
        asks(matrix, oracle, weighed, options, found);
    }

    private static double rounded(double x) {
        return Math.rint(x * 1e9);
    }

    private static int firstOfName(Matrix matrix, int row) {
        int first = 0;
        while (!matrix.sharesName(first, row)) {
            first++;
        }
        return first;
    }

    private static void asks(
            Matrix matrix,
            IdentificationOracle oracle,
            IdentificationOracle.Weighed weighed,
            IdentifyOptions options,
            Identification found) {
        Map<Integer, Double> questions = oracle.questions(weighed, options);
        Comparator<Integer> order = Comparator.comparing((Integer c) -> oracle.turn(c, weighed.posterior()))
                .thenComparingDouble(c -> -rounded(questions.getOrDefault(c, 0.0)))
                .thenComparing(c -> c);
        assertThat(found.questions())
                .extracting(Question::character)
                .isEqualTo(questions.keySet().stream().sorted(order).limit(5).toList());
        for (Question question : found.questions()) {
            assertThat(question.bitsPerMinute())
                    .isCloseTo(questions.getOrDefault(question.character(), Double.NaN), within(1e-8));
            double minutes =
                    Math.max(0.1, matrix.character(question.character()).effort());
            assertThat(question.bits()).isCloseTo(question.bitsPerMinute() * minutes, within(1e-9));
        }
    }

    private static void concludes(
            Matrix matrix, IdentificationOracle oracle, Identification found, List<Answer> answers) {
        Standing leader = found.standings().get(0);
        List<Integer> likely = new ArrayList<>();
        double sum = 0;
        for (Standing standing : found.standings().stream()
                .sorted(Comparator.comparingDouble((Standing s) -> -s.posterior()))
                .toList()) {
            if (sum < 0.95 * (1 - found.outside())) {
                likely.add(standing.row());
                sum += standing.posterior();
            }
            // What a reader is left with who forgets what rules of thumb say: odds against the leader.
            double odds =
                    standing.posterior() / leader.posterior() * Math.pow(2, roughBits(leader) - roughBits(standing));
            assertThat(standing.isRivalOf(leader))
                    .isEqualTo(Math.max(odds / (1 + odds), standing.posterior()) >= 0.002);
        }
        assertThat(found.conclusion().rows()).isEqualTo(likely);
        assertThat(found.conclusion().notCompared())
                .containsExactlyElementsOf(found.standings().stream()
                        .filter(s -> s.compared() < answers.size() / 2.0)
                        .map(Standing::row)
                        .toList());
        List<Integer> mustShow = oracle.mustShow(leader.row());
        assertThat(found.conclusion().mustShow()).isEqualTo(mustShow);
        Kind kind = found.conclusion().kind();
        boolean outside = !answers.isEmpty()
                && (found.outside() > leader.namePosterior()
                        || oracle.lacksWhatAllShow()
                        || oracle.isUnlikeAll(leader.row()));
        assertThat(kind == Kind.OUTSIDE).isEqualTo(outside);
        if (answers.isEmpty()) {
            assertThat(kind).isEqualTo(Kind.OPEN);
        } else if (!outside) {
            boolean settled = mustShow.isEmpty()
                    && likely.stream().allMatch(r -> matrix.sharesName(r, leader.row()))
                    && found.standings().stream()
                            .allMatch(s -> matrix.sharesName(s.row(), leader.row())
                                    || found.conclusion().notCompared().contains(s.row())
                                    || !s.isRivalOf(leader)
                                    || oracle.isFirmlyContradicted(s.row(), leader.row()));
            assertThat(kind == Kind.SETTLED).isEqualTo(settled);
            Question first =
                    found.questions().isEmpty() ? null : found.questions().get(0);
            boolean worth = first != null && (first.bits() >= 0.05 || mustShow.contains(first.character()));
            if (!settled) {
                assertThat(kind).isEqualTo(worth ? Kind.OPEN : Kind.REMAINING);
            }
        }
    }

    private static double roughBits(Standing standing) {
        return standing.contributions().stream()
                .filter(Identification.Contribution::rough)
                .mapToDouble(Identification.Contribution::bits)
                .sum();
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void whoeverContradictsMoreThanIsToleratedIsStruckOutAndStandsLast(long seed) {
        Random random = new Random(seed);
        Matrix matrix = matrix(random);
        List<Answer> answers = answers(matrix, random);
        int tolerance = random.nextInt(3);
        IdentificationOracle oracle = new IdentificationOracle(matrix, answers);
        double[] weighed = oracle.weigh(new IdentifyOptions(true, tolerance, 0xFFF, new boolean[0]))
                .posterior();
        double left = weighed[ROWS];
        for (int i : oracle.rows()) {
            left += oracle.mismatches(i) > tolerance ? 0 : weighed[i];
        }

        Identification found = new AnyOrderIdentifier(matrix)
                .identify(answers, new IdentifyOptions(true, tolerance, 0xFFF, new boolean[0]));

        assertThat(found.outside()).isCloseTo(weighed[ROWS] / left, within(1e-9));
        for (Standing standing : found.standings()) {
            boolean out = oracle.mismatches(standing.row()) > tolerance;
            assertThat(standing.struckOut()).isEqualTo(out);
            assertThat(standing.posterior()).isCloseTo(out ? 0 : weighed[standing.row()] / left, within(1e-9));
        }
        assertThat(found.standings())
                .isSortedAccordingTo(Comparator.comparing((Standing s) -> oracle.fewestMismatches(s.row()))
                        .thenComparingDouble(s ->
                                -rounded(new IdentificationOracle.Weighed(weighed, List.of()).ofName(matrix, s.row())))
                        .thenComparing(s -> firstOfName(matrix, s.row()))
                        .thenComparing(Standing::struckOut)
                        .thenComparing(Standing::mismatches)
                        .thenComparingDouble(s -> -rounded(s.score()))
                        .thenComparing(Standing::row));
    }
}
