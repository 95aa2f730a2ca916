package org.polyclave.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.DoubleStream;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;
import org.polyclave.core.testkit.SyntheticMatrix;
import org.tribuo.Example;
import org.tribuo.MutableDataset;
import org.tribuo.classification.Label;
import org.tribuo.classification.LabelFactory;
import org.tribuo.classification.dtree.CARTClassificationTrainer;
import org.tribuo.classification.dtree.impurity.Entropy;
import org.tribuo.common.tree.Node;
import org.tribuo.common.tree.SplitNode;
import org.tribuo.common.tree.TreeModel;
import org.tribuo.datasource.ListDataSource;
import org.tribuo.impl.ArrayExample;
import org.tribuo.provenance.SimpleDataSourceProvenance;

/**
 * Keys beside the trees of a general learner of decision trees on the same tables, in one run: how many steps are expected, and
 * how long it takes to the first key and to the last. The learner (binary splits by entropy: Breiman and others 1984) is given of
 * each row the state or the middle of the range that is commonest, and nothing of what is unknown; so its trees name only
 * such specimens, while a key names all.
 */
public final class LearnerTable {
    private static final double MILLION = 1e6;
    private static final int LARGE = 100_000;

    private final int rounds;

    private LearnerTable(int rounds) {
        this.rounds = rounds;
    }

    /** The first argument is the number of rounds, after one to warm up; 5 if there is none, one for large tables. */
    public static void main(String[] arguments) {
        new LearnerTable(arguments.length > 0 ? Integer.parseInt(arguments[0]) : 5).print();
    }

    /** Times in milliseconds, and the steps that are expected of the first tree and of the last. */
    private record Run(double first, double last, double firstSteps, double steps) {}

    private void print() {
        System.out.println(
                "| table | learner: ms | steps | first key: ms | steps | best key: ms | steps | bound | proven |");
        System.out.println("|---|---|---|---|---|---|---|---|---|");
        for (int[] sides : new int[][] {{14, 60}, {40, 30}, {60, 40}, {200, 100}, {2000, 500}}) {
            line("one state a cell", new SyntheticMatrix(sides[0], sides[1], 5, 0, 0, 0, 0, true).generate(42));
            line(
                    "some vary, are unknown or numbers",
                    SyntheticMatrix.benchmark(sides[0], sides[1]).generate(42));
        }
    }

    private void line(String family, Matrix matrix) {
        boolean large = (long) matrix.rowCount() * matrix.characterCount() > LARGE;
        List<Run> learner = new ArrayList<>();
        List<Run> keys = new ArrayList<>();
        KeyResult result = null;
        for (int round = 0; round <= (large ? 1 : rounds); round++) {
            Run learned = learn(matrix);
            List<Run> timed = new ArrayList<>();
            result = key(matrix, timed);
            if (round > 0) {
                learner.add(learned);
                keys.addAll(timed);
            }
        }
        if (result == null) {
            throw new IllegalStateException("No round");
        }
        System.out.printf(
                Locale.ROOT,
                "| %d × %d, %s | %.1f | %.3f | %.1f | %.3f | %.1f | %.3f | %.3f | %s |%n",
                matrix.rowCount(),
                matrix.characterCount(),
                family,
                median(learner.stream().mapToDouble(Run::last)),
                learner.get(0).steps(),
                median(keys.stream().mapToDouble(Run::first)),
                keys.get(0).firstSteps(),
                median(keys.stream().mapToDouble(Run::last)),
                keys.get(0).steps(),
                result.figures().leastSteps(),
                result.figures().completion());
    }

    private static double median(DoubleStream values) {
        double[] sorted = values.sorted().toArray();
        return (sorted[(sorted.length - 1) / 2] + sorted[sorted.length / 2]) / 2;
    }

    private static KeyResult key(Matrix matrix, List<Run> timed) {
        long start = System.nanoTime();
        double[] first = new double[2];
        KeyOutcome outcome = new KeyGenerator()
                .generate(
                        matrix,
                        KeyOptions.DEFAULT.withObjective(KeyObjective.FEWEST),
                        CancelSignal.NEVER,
                        Progress.UNSEEN,
                        key -> {
                            if (first[0] == 0) {
                                // With its words to be, its proof and what becomes of its readers.
                                first[1] = key.get().figures().expectedSteps();
                                first[0] = (System.nanoTime() - start) / MILLION;
                            }
                        });
        double last = (System.nanoTime() - start) / MILLION;
        if (outcome instanceof KeyOutcome.Generated generated) {
            timed.add(new Run(
                    first[0], last, first[1], generated.result().figures().expectedSteps()));
            return generated.result();
        }
        throw new IllegalStateException("No key: " + outcome);
    }

    private static Run learn(Matrix matrix) {
        LabelFactory labels = new LabelFactory();
        ListDataSource<Label> source =
                new ListDataSource<>(examples(matrix), labels, new SimpleDataSourceProvenance("synthetic", labels));
        long start = System.nanoTime();
        MutableDataset<Label> data = new MutableDataset<>(source);
        TreeModel<Label> tree =
                new CARTClassificationTrainer(Integer.MAX_VALUE, 1f, 0f, 1f, false, new Entropy(), 1L).train(data);
        double time = (System.nanoTime() - start) / MILLION;
        double steps = depths(tree.getRoot(), 0) / matrix.rowCount();
        return new Run(time, time, steps, steps);
    }

    /** Sum of the depths of the leaves, each of which is one row. */
    private static double depths(Node<Label> node, int depth) {
        return node instanceof SplitNode<Label> split
                ? depths(split.getGreaterThan(), depth + 1) + depths(split.getLessThanOrEqual(), depth + 1)
                : depth;
    }

    private static List<Example<Label>> examples(Matrix matrix) {
        List<Example<Label>> examples = new ArrayList<>();
        for (int i = 0; i < matrix.rowCount(); i++) {
            List<String> names = new ArrayList<>();
            List<Double> values = new ArrayList<>();
            for (int c = 0; c < matrix.characterCount(); c++) {
                Cell cell = matrix.cell(i, c);
                if (cell instanceof Cell.Categorical shown) {
                    names.add(c + "=" + Integer.numberOfTrailingZeros(shown.support()));
                    values.add(1.0);
                } else if (cell instanceof Cell.Numeric range) {
                    names.add(String.valueOf(c));
                    values.add((range.low() + range.high()) / 2);
                }
            }
            examples.add(new ArrayExample<>(
                    new Label("row-" + i),
                    names.toArray(String[]::new),
                    values.stream().mapToDouble(Double::doubleValue).toArray()));
        }
        return examples;
    }
}
