package org.polyclave.core.separation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.testkit.SeparationOracle;

/** When pairs can be told, against every month alone; what a score is worth, against writing every possible one. */
class ScoringAndYearTest {
    static LongStream seeds() {
        return LongStream.rangeClosed(1, 40);
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void theYearOfAPairIsItsTwelveMonths(long seed) {
        Random random = new Random(seed);
        Matrix matrix = SeparationCases.matrix(random, 6, 1 + random.nextInt(12));
        StrictSeparation anyMonth = new StrictSeparation(matrix);
        for (int month = 0; month < 12; month++) {
            SeparationOracle oracle = new SeparationOracle(matrix, SeparationContext.EVERYTHING.in(1 << month));
            for (int b = 1; b < matrix.rowCount(); b++) {
                PairSeasonality year = PairSeasonality.of(matrix, anyMonth, 0, b);
                Verdict verdict = oracle.verdict(0, b);
                assertThat(year.firm() >> month & 1)
                        .as("firm in month %d", month)
                        .isEqualTo(verdict == Verdict.FIRM ? 1 : 0);
                assertThat(year.open() >> month & 1)
                        .as("open in month %d", month)
                        .isEqualTo(verdict.compareTo(Verdict.THIN) < 0 ? 1 : 0);
            }
        }
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void aScoreIsWorthThePairsThatItWouldPart(long seed) {
        Random random = new Random(seed);
        Matrix matrix = SeparationCases.matrix(random, 4 + random.nextInt(8), 2 + random.nextInt(8));
        SeparationContext context =
                SeparationCases.context(random, matrix.characterCount()).in(0);
        List<ScoringGains.Gain> gains =
                new ScoringGains(matrix, context, PairVerdicts.of(matrix, context)).best(Integer.MAX_VALUE);
        Map<List<Integer>, Double> told = new HashMap<>();
        for (int k = 0; k < gains.size(); k++) {
            ScoringGains.Gain gain = gains.get(k);
            told.put(List.of(gain.row(), gain.character()), gain.pairs());
            assertThat(k == 0 || gains.get(k - 1).perMinute() >= gain.perMinute())
                    .as("best first")
                    .isTrue();
        }
        StrictSeparation now = new StrictSeparation(matrix, context);
        for (int row = 0; row < matrix.rowCount(); row++) {
            for (int c = 0; c < matrix.characterCount(); c++) {
                boolean open =
                        matrix.cell(row, c) instanceof Cell.Unknown && now.isApplicable(row, c) && context.isUsable(c);
                double worth = open ? worth(matrix, context, now, row, c) : 0;
                assertThat(told.getOrDefault(List.of(row, c), 0.0))
                        .as("%d × %d", row, c)
                        .isCloseTo(worth, within(1e-9));
            }
        }
    }

    @Test
    void nobodyIsSentToSmellWhatMayHarm() {
        for (boolean smelled : List.of(false, true)) {
            MatrixCharacter odour = new MatrixCharacter(
                    "odour", CharacterType.STATES, 2, List.of(), 0, 0, 0, 1, 0, 0.05, 0xFFF, smelled, true);
            for (Hazard hazard : Hazard.values()) {
                List<MatrixRow> rows = List.of(
                        new MatrixRow("a", 0, 0, 1, hazard),
                        new MatrixRow("b", 1, 1, 1, Hazard.NONE_KNOWN),
                        new MatrixRow("c", 2, 2, 1, Hazard.NONE_KNOWN));
                Cell[][] cells = {{Cell.UNKNOWN}, {Cell.Categorical.single(0, 2)}, {Cell.Categorical.single(1, 2)}};
                Matrix matrix = Matrix.of(rows, List.of(odour), cells);
                PairVerdicts verdicts = PairVerdicts.of(matrix, SeparationContext.EVERYTHING);
                assertThat(new ScoringGains(matrix, SeparationContext.EVERYTHING, verdicts).best(9))
                        .as("%s, smelled: %s", hazard, smelled)
                        .hasSize(smelled && hazard != Hazard.NONE_KNOWN ? 0 : 1);
            }
        }
    }

    /** Writes the cell of every scored row into the unknown one, and where the rival is unknown too, every pair of cells. */
    private static double worth(Matrix matrix, SeparationContext context, StrictSeparation now, int row, int c) {
        List<Integer> scored = IntStream.range(0, matrix.rowCount())
                .filter(i -> now.isComparable(i, c))
                .boxed()
                .toList();
        double worth = 0;
        for (int j = 0; j < matrix.rowCount(); j++) {
            Set<Integer> groups = new HashSet<>();
            now.separating(row, j).forEach(s -> groups.add(matrix.character(s).group()));
            boolean weak = matrix.row(j).name() != matrix.row(row).name()
                    && groups.size() < 2
                    && !groups.contains(matrix.character(c).group());
            if (weak && !scored.isEmpty()) {
                boolean both = matrix.cell(j, c) instanceof Cell.Unknown && now.isApplicable(j, c);
                double parted = 0;
                for (int k : scored) {
                    Matrix one = matrix.with(row, c, matrix.cell(k, c));
                    for (int other : both ? scored : List.of(j)) {
                        Matrix two = both ? one.with(j, c, matrix.cell(other, c)) : one;
                        parted += new StrictSeparation(two, context).separates(row, j, c) ? 1 : 0;
                    }
                }
                worth += both ? parted / scored.size() / scored.size() / 2 : parted / scored.size();
            }
        }
        return worth;
    }
}
