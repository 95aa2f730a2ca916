package org.polyclave.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;
import org.polyclave.core.diagnosis.Diagnoses;
import org.polyclave.core.diagnosis.Diagnosis;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.run.Completion;
import org.polyclave.core.separation.SeparationContext;

/** The cheapest diagnoses of all rows of a matrix of 200 × 100 in 40 correlation groups, by one group and by two. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgsAppend = "-Xmx1g")
@Warmup(iterations = 1)
@Measurement(iterations = 3)
public class DiagnosisBenchmark {
    @Param({"1", "2"})
    private int fold = 1;

    private final Matrix matrix = SeparationBenchmark.grouped(200, 100);
    private List<Diagnosis> found = List.of();

    @Benchmark
    public List<Diagnosis> diagnoses() {
        Diagnoses all = new Diagnoses(matrix, SeparationContext.EVERYTHING, Observer.TRAINED, Diagnoses.NODES);
        found = IntStream.range(0, matrix.rowCount())
                .parallel()
                .mapToObj(i -> all.of(i, fold))
                .toList();
        return found;
    }

    @TearDown
    public void tell() {
        long proven =
                found.stream().filter(d -> d.completion() == Completion.OPTIMAL).count();
        double[] gaps = found.stream()
                .mapToDouble(d -> d.cost() > 0 ? 1 - d.bound() / d.cost() : 0)
                .sorted()
                .toArray();
        System.out.printf(
                "%n# %d of %d proven; gap: median %.2f, largest %.2f%n",
                proven, gaps.length, gaps[gaps.length / 2], gaps[gaps.length - 1]);
    }
}
