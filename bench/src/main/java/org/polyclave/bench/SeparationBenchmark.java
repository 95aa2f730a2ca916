package org.polyclave.bench;

import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.separation.PairVerdicts;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.Strength;
import org.polyclave.core.separation.Verdict;
import org.polyclave.core.testkit.SyntheticMatrix;

/**
 * Verdicts of all pairs of a synthetic matrix of 2,000 rows and 500 characters in 40 correlation groups, every second of which is
 * seen in half of the year; the same by a bare loop of bit-set tests; and strengths.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgsAppend = "-Xmx1g")
@Warmup(iterations = 2, time = 3)
@Measurement(iterations = 3, time = 3)
public class SeparationBenchmark {
    private static final int GROUPS = 40;
    private static final int JUNE_TO_NOVEMBER = 0x7E0;
    private static final SeparationContext JANUARY = SeparationContext.EVERYTHING.in(1);

    private Matrix matrix = grouped(2, 2);
    private PairVerdicts verdicts = PairVerdicts.of(matrix, SeparationContext.EVERYTHING);
    private Matrix edited = matrix;
    private Strength strength = new Strength(matrix, Observer.TRAINED);
    private int[][] masks = {};

    @Setup
    public void prepare() {
        matrix = grouped(2000, 500);
        verdicts = PairVerdicts.of(matrix, SeparationContext.EVERYTHING);
        edited = matrix.with(7, 0, Cell.UNKNOWN);
        strength = new Strength(matrix, Observer.TRAINED);
        masks = new int[matrix.characterCount()][matrix.rowCount()];
        for (int c = 0; c < masks.length; c++) {
            for (int i = 0; i < masks[c].length; i++) {
                masks[c][i] = matrix.cell(i, c) instanceof Cell.Categorical shown ? shown.readable() : -1;
            }
        }
        for (Verdict verdict : Verdict.values()) {
            System.out.printf("%n# %s: %d pairs", verdict, verdicts.count(verdict));
        }
    }

    static Matrix grouped(int rows, int characters) {
        Matrix plain = SyntheticMatrix.benchmark(rows, characters).generate(42);
        return SyntheticMatrix.withCharacters(plain, SeparationBenchmark::grouped);
    }

    private static MatrixCharacter grouped(MatrixCharacter plain) {
        // The generator gives each character its own number as its group.
        int c = plain.group();
        return new MatrixCharacter(
                plain.id(),
                plain.type(),
                plain.stateCount(),
                plain.appliesWhen(),
                plain.organ(),
                plain.method(),
                c % GROUPS,
                0.5 * (1 + c % 5),
                0,
                0.05,
                c % 2 == 0 ? MatrixCharacter.ALL_MONTHS : JUNE_TO_NOVEMBER,
                false,
                true);
    }

    @Benchmark
    public PairVerdicts verdictsOfAllPairs() {
        return PairVerdicts.of(matrix, SeparationContext.EVERYTHING);
    }

    @Benchmark
    public PairVerdicts verdictsInJanuary() {
        return PairVerdicts.of(matrix, JANUARY);
    }

    /** The same question asked bare: which characters part two rows? States only; every test is made. */
    @Benchmark
    public long bareLoop() {
        return IntStream.range(0, matrix.rowCount())
                .parallel()
                .mapToLong(a -> {
                    long apart = 0;
                    for (int b = 0; b < a; b++) {
                        for (int[] mask : masks) {
                            apart += (mask[a] & mask[b]) == 0 ? 1 : 0;
                        }
                    }
                    return apart;
                })
                .sum();
    }

    @Benchmark
    public PairVerdicts editOfOneCell() {
        return verdicts.withRow(edited, 7);
    }

    @Benchmark
    public double[] strengthsOfOneRowAgainstAll() {
        return strength.bitsAgainstAll(7, SeparationContext.EVERYTHING);
    }
}
