package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Completion;
import org.polyclave.core.run.Progress;

/**
 * Generates dichotomous keys. Trees are searched for every objective ({@link KeySearch}), and the best of all is written for the one
 * that is wanted. Every key is proven against the matrix before it is returned. Deterministic for a matrix and options.
 */
public final class KeyGenerator {
    /** Beyond so many terminals a row (and a few more for small matrices) a key helps nobody and is refused. */
    static final int TERMINALS_PER_ROW = 40;

    private static final int TERMINALS_ALLOWED = 2_000;
    private static final double THIN = 0.5;
    private static final int MOST_BLAMED = 8;

    private final KeyProver prover = new SupportPropagationProver();

    public KeyOutcome generate(Matrix matrix, KeyOptions options, CancelSignal cancel) {
        return generate(matrix, options, cancel, Progress.UNSEEN);
    }

    /** @param progress told how much of the search is done */
    public KeyOutcome generate(Matrix matrix, KeyOptions options, CancelSignal cancel, Progress progress) {
        return generate(matrix, options, cancel, progress, key -> {});
    }

    /**
     * @param progress told how much of the search is done
     * @param soFar given the best key so far whenever there may be a better one; it is written and proven only if it is asked for
     */
    public KeyOutcome generate(
            Matrix matrix,
            KeyOptions options,
            CancelSignal cancel,
            Progress progress,
            Consumer<Supplier<KeyResult>> soFar) {
        if (matrix.rowCount() == 0) {
            return new KeyOutcome.NoRows();
        }
        KeyProblem problem = new KeyProblem(matrix, options.evenWeights(), options.leads());
        int allowed = TERMINALS_ALLOWED + TERMINALS_PER_ROW * matrix.rowCount();
        KeyPool pool = new KeyPool(problem, options, allowed);
        pool.search(cancel, progress, () -> soFar.accept(() -> finish(problem, options, pool, Completion.CANCELLED)));
        boolean cancelled = cancel.isCancelled();
        if (!pool.isEmpty()) {
            Completion ended = cancelled ? Completion.CANCELLED : Completion.BUDGET_EXHAUSTED;
            return new KeyOutcome.Generated(finish(problem, options, pool, ended));
        }
        return cancelled
                ? new KeyOutcome.Cancelled()
                : new KeyOutcome.TooManyTerminals(allowed, thinRows(matrix), looseCharacters(matrix));
    }

    /** @param otherwise what ended the search, where it did not end by itself */
    private KeyResult finish(KeyProblem problem, KeyOptions options, KeyPool pool, Completion otherwise) {
        KeyPool.Judged best = pool.best(options.objective());
        KeyWriter writer = new KeyWriter(problem, options.confirming(), pool.cost(options.objective()));
        Key key = writer.write(best.tree());
        double entropyBound = EntropyBound.of(problem.matrix, options.evenWeights(), options.leads());
        KeyResult.Figures figures = new KeyResult.Figures(
                problem.matrix.rowCount(),
                best.tree().couplets(),
                best.tree().ends(),
                best.cost(KeyObjective.FEWEST),
                best.tree().longestPath(),
                entropyBound,
                // Where questions are set, the search knows only of keys that ask them.
                options.questions().isEmpty() ? Math.max(entropyBound, pool.leastSteps()) : entropyBound,
                best.trained(),
                best.novice(),
                pool.isBest(options.objective()) ? Completion.OPTIMAL : otherwise);
        return new KeyResult(key, figures, proof(problem, key), writer.reasons(), pool.compared());
    }

    /** Of a row with more kinds of specimens than were told apart, the key may name more than it must; then it is not proven. */
    private Proof proof(KeyProblem problem, Key key) {
        Proof proof = prover.prove(problem.matrix, key);
        if (problem.complete) {
            return proof;
        }
        List<Proof.Failure> real = proof.failures().stream()
                .filter(f -> f.kind() != Proof.Kind.NAMED_IN_VAIN)
                .toList();
        return new Proof(real, proof.observations(), false);
    }

    private static List<Integer> thinRows(Matrix matrix) {
        List<Integer> thin = new ArrayList<>();
        for (int i = 0; i < matrix.rowCount(); i++) {
            int known = 0;
            for (int c = 0; c < matrix.characterCount(); c++) {
                known += matrix.cell(i, c) instanceof Cell.Unknown ? 0 : 1;
            }
            if (known < THIN * matrix.characterCount()) {
                thin.add(i);
            }
        }
        return thin;
    }

    private static List<Integer> looseCharacters(Matrix matrix) {
        int[] loose = new int[matrix.characterCount()];
        List<Integer> order = new ArrayList<>();
        for (int c = 0; c < loose.length; c++) {
            order.add(c);
            for (int i = 0; i < matrix.rowCount(); i++) {
                Cell cell = matrix.cell(i, c);
                boolean varies = cell instanceof Cell.Categorical shown && Integer.bitCount(shown.readable()) > 1;
                loose[c] += varies || cell instanceof Cell.Unknown ? 1 : 0;
            }
        }
        order.sort((a, b) -> Integer.compare(loose[b], loose[a]));
        return List.copyOf(order.subList(0, Math.min(MOST_BLAMED, order.size())));
    }
}
