package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import org.polyclave.core.key.KeyProblem.Pattern;
import org.polyclave.core.run.CancelSignal;

/**
 * The key of least expected steps over the splits enumerated here, for few rows: memoised depth-first search with
 * bounds. Every couplet costs the mass that passes it, so V(K) = 0 at a terminal, else min over splits of
 * mass(K) + V(first) + V(second). Splits that part the classes alike without sending any down both leads are tried once.
 * Exponential in the number of classes; meant for up to {@link KeyOptions#EXACT_ROWS} rows.
 */
final class ExactTreeBuilder implements TreeBuilder {
    private static final double TOLERANCE = 1e-12;

    private final KeyProblem problem;
    private final SplitSurveyor surveyor;
    private final CancelSignal cancel;
    private final int nodeBudget;
    private final Map<List<Object>, Solved> memo = new HashMap<>();
    private int nodes;

    ExactTreeBuilder(KeyProblem problem, CancelSignal cancel, int nodeBudget) {
        this.problem = problem;
        this.cancel = cancel;
        this.nodeBudget = nodeBudget;
        surveyor = new SplitSurveyor(problem, KeyObjective.FEWEST);
    }

    /** A position solved: its cost and the split that attains it (empty at a terminal). */
    private record Solved(double cost, Optional<Candidate> split, List<Candidate> candidates) {}

    private static final class OutOfBudget extends RuntimeException {
        private static final long serialVersionUID = 1;

        OutOfBudget() {
            super("The node budget of the exact search is spent", null, false, false);
        }
    }

    @Override
    public Optional<KeyTree> build(Position start) {
        try {
            solve(start);
            return Optional.of(tree(start));
        } catch (OutOfBudget spent) {
            return Optional.empty();
        }
    }

    private KeyTree tree(Position position) {
        Solved solved = solve(position);
        if (solved.split().isEmpty()) {
            return new KeyTree.Stop(position.classes);
        }
        Candidate chosen = solved.split().get();
        List<Candidate> alternatives = new ArrayList<>();
        for (Candidate candidate : solved.candidates()) {
            boolean other = candidate.split().character() != chosen.split().character();
            if (other && alternatives.size() < LookaheadTreeBuilder.ALTERNATIVES) {
                alternatives.add(candidate);
            }
        }
        return new KeyTree.Choice(
                chosen,
                alternatives,
                tree(position.follow(chosen.split(), true)),
                tree(position.follow(chosen.split(), false)));
    }

    private Solved solve(Position position) {
        List<Object> signature = signature(position);
        Solved known = memo.get(signature);
        if (known != null) {
            return known;
        }
        if (++nodes > nodeBudget || cancel.isCancelled()) {
            throw new OutOfBudget();
        }
        List<Candidate> candidates = distinct(position, surveyor.candidates(position));
        Solved solved =
                candidates.isEmpty() ? new Solved(0, Optional.empty(), List.of()) : cheapest(position, candidates);
        memo.put(signature, solved);
        return solved;
    }

    private Solved cheapest(Position position, List<Candidate> candidates) {
        double best = Double.POSITIVE_INFINITY;
        Candidate chosen = candidates.get(0);
        for (Candidate candidate : candidates) {
            Position first = position.follow(candidate.split(), true);
            Position second = position.follow(candidate.split(), false);
            double bound = position.total + bound(first) + bound(second);
            if (bound >= best - TOLERANCE) {
                continue;
            }
            double cost = position.total + solve(first).cost();
            if (cost + bound(second) < best - TOLERANCE) {
                cost += solve(second).cost();
                if (cost < best - TOLERANCE) {
                    best = cost;
                    chosen = candidate;
                }
            }
        }
        return new Solved(best, Optional.of(chosen), candidates);
    }

    /** Best first, and of the splits that send every class down one lead only, one for each way of parting them. */
    private List<Candidate> distinct(Position position, List<Candidate> candidates) {
        List<Candidate> sorted = new ArrayList<>(candidates);
        sorted.sort((a, b) -> Candidate.compare(a, a.score(), b, b.score()));
        Map<List<Integer>, Candidate> kept = new LinkedHashMap<>();
        List<Candidate> result = new ArrayList<>();
        for (Candidate candidate : sorted) {
            if (candidate.duplicated() > 0 || kept.putIfAbsent(firstClasses(position, candidate), candidate) == null) {
                result.add(candidate);
            }
        }
        return result;
    }

    /** The classes on the side of the first class in play: the same for a split and its mirror image. */
    private static List<Integer> firstClasses(Position position, Candidate candidate) {
        boolean side = position.enters(0, candidate.split(), true);
        List<Integer> classes = new ArrayList<>();
        for (int k = 0; k < position.size(); k++) {
            if (position.enters(k, candidate.split(), side)) {
                classes.add(position.classes[k]);
            }
        }
        return classes;
    }

    /**
     * Lower bound: Huffman over rows that are separable from one another wherever they meet, plus one step for each of
     * the others, and nothing at a position where only one target is left.
     */
    private double bound(Position position) {
        List<Integer> apart = new ArrayList<>();
        double rest = 0;
        for (int k = 0; k < position.size(); k++) {
            boolean separable = true;
            for (int chosen : apart) {
                separable &= separable(position, chosen, k);
            }
            if (separable) {
                apart.add(k);
            } else {
                rest += position.mass[k];
            }
        }
        if (apart.size() < 2) {
            return 0;
        }
        PriorityQueue<Double> queue = new PriorityQueue<>();
        for (int k : apart) {
            queue.add(position.mass[k]);
        }
        double sum = 0;
        while (queue.size() > 1) {
            double joined = take(queue) + take(queue);
            sum += joined;
            queue.add(joined);
        }
        return sum + rest;
    }

    private static double take(PriorityQueue<Double> queue) {
        Double least = queue.poll();
        return least == null ? 0 : least;
    }

    private boolean separable(Position position, int a, int b) {
        if (problem.nameOf[position.classes[a]] == problem.nameOf[position.classes[b]]) {
            return false;
        }
        for (int c = 0; c < problem.matrix.characterCount(); c++) {
            Pattern p = position.pattern(c, a);
            Pattern q = position.pattern(c, b);
            if (!p.known() || !q.known() || !problem.matrix.character(c).role().decides()) {
                continue;
            }
            boolean disjoint = problem.matrix.character(c).type().isNumeric()
                    ? Math.max(p.min(), q.min()) > Math.min(p.max(), q.max())
                    : (p.mask() & q.mask() & position.masks[c]) == 0;
            if (disjoint) {
                return true;
            }
        }
        return false;
    }

    /** The classes in play, and what is left of each character of which the path has taken something from one of them. */
    private List<Object> signature(Position position) {
        List<Object> signature = new ArrayList<>();
        signature.add(Arrays.stream(position.classes).boxed().toList());
        for (int c = 0; c < problem.matrix.characterCount(); c++) {
            if (problem.matrix.character(c).type().isNumeric()) {
                addNarrowedRange(position, c, signature);
            } else {
                addNarrowedStates(position, c, signature);
            }
        }
        return signature;
    }

    private static void addNarrowedStates(Position position, int c, List<Object> signature) {
        int union = 0;
        boolean narrowed = false;
        for (int k = 0; k < position.size(); k++) {
            int mask = position.pattern(c, k).mask();
            union |= mask;
            narrowed |= (mask & ~position.masks[c]) != 0;
        }
        if (narrowed) {
            signature.add(c);
            signature.add(union & position.masks[c]);
        }
    }

    private static void addNarrowedRange(Position position, int c, List<Object> signature) {
        boolean narrowed = false;
        for (int k = 0; k < position.size(); k++) {
            Pattern pattern = position.pattern(c, k);
            narrowed |= pattern.min() <= position.low[c] || pattern.max() > position.high[c];
        }
        if (narrowed) {
            signature.add(c);
            signature.add(position.low[c]);
            signature.add(position.high[c]);
        }
    }
}
