package org.polyclave.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.key.Proof;
import org.polyclave.core.key.SupportPropagationProver;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.testkit.SyntheticMatrix;

/**
 * Key generation (with its proof), proof alone, and one any-order answer with full re-ranking, on synthetic matrices of
 * {@link SyntheticMatrix#benchmark}: 5 % polymorphic and 3 % unknown cells, 20 % numeric characters, up to 5 states.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
        value = 1,
        jvmArgsAppend = {"-Xmx4g", "-Xss4m"})
@Warmup(iterations = 1, time = 2)
@Measurement(iterations = 2, time = 3)
public class KeyBenchmark {
    @Param({"20x40", "200x100", "2000x500"})
    private String size = "20x40";

    private Matrix matrix = new SyntheticMatrix(2, 2, 2, 0, 0, 0, 0, true).generate(1);
    private KeyResult key = generate(matrix);
    private AnyOrderIdentifier identifier = new AnyOrderIdentifier(matrix);
    private List<Answer> answers = List.of();

    @Setup
    public void prepare() {
        String[] sides = size.split("x", 2);
        matrix = SyntheticMatrix.benchmark(Integer.parseInt(sides[0]), Integer.parseInt(sides[1]))
                .generate(42);
        key = generate(matrix);
        identifier = new AnyOrderIdentifier(matrix);
        answers = new ArrayList<>();
        for (int c = 0; answers.size() < 5; c++) {
            if (matrix.cell(7, c) instanceof Cell.Categorical shown) {
                answers.add(new Answer(c, new Observation.Seen(Integer.lowestOneBit(shown.support())), Certainty.SURE));
            }
        }
        System.out.printf(
                "%n# %s: %d couplets, %d terminals, %.3f steps expected (bound %.3f), longest %d, proven %s%n",
                size,
                key.figures().couplets(),
                key.figures().terminals(),
                key.figures().expectedSteps(),
                key.figures().entropyBound(),
                key.figures().longestPath(),
                key.proof().proven());
    }

    private static KeyResult generate(Matrix matrix) {
        KeyOutcome outcome = new KeyGenerator()
                .generate(matrix, KeyOptions.DEFAULT.withObjective(KeyObjective.FEWEST), CancelSignal.NEVER);
        if (outcome instanceof KeyOutcome.Generated generated) {
            return generated.result();
        }
        throw new IllegalStateException("No key: " + outcome);
    }

    @Benchmark
    public KeyResult generateAndProve() {
        return generate(matrix);
    }

    @Benchmark
    public Proof prove() {
        return new SupportPropagationProver().prove(matrix, key.key());
    }

    @Benchmark
    public Identification answer() {
        return identifier.identify(answers, IdentifyOptions.WEIGH);
    }
}
