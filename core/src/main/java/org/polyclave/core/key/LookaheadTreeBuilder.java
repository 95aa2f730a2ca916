package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;

/**
 * Greedy construction by information gain per cost with two-step lookahead: the most promising splits are judged together
 * with the best split of each of their leads. Deterministic. Time O(couplets · rows · characters · {@value #LOOKED_AT}).
 * A variant of the top-down induction of identification trees (Payne & Preece 1980, J. R. Statist. Soc. A 143).
 */
final class LookaheadTreeBuilder implements TreeBuilder {
    static final int LOOKED_AT = 6;
    /** Where rows times characters exceed this, only half as many splits are looked at, to stay within seconds. */
    private static final int LARGE = 100_000;

    static final int ALTERNATIVES = 6;

    private final SplitSurveyor surveyor;
    private final CancelSignal cancel;
    private final Progress progress;
    private final int maxStops;
    private final int characters;
    private int stops;

    LookaheadTreeBuilder(
            KeyProblem problem, KeyObjective objective, CancelSignal cancel, Progress progress, int maxStops) {
        surveyor = new SplitSurveyor(problem, objective);
        this.cancel = cancel;
        this.progress = progress;
        this.maxStops = maxStops;
        characters = problem.matrix.characterCount();
    }

    @Override
    public Optional<KeyTree> build(Position start) {
        stops = 0;
        KeyTree tree = grow(start, surveyor.candidates(start), 0, 1);
        return cancel.isCancelled() || stops > maxStops ? Optional.empty() : Optional.of(tree);
    }

    /** Grows the tree of a position, which is the part of the work from {@code from} to {@code to}. */
    private KeyTree grow(Position position, List<Candidate> candidates, double from, double to) {
        if (candidates.isEmpty() || stops > maxStops || cancel.isCancelled()) {
            stops++;
            progress.report(to);
            return new KeyTree.Stop(position.classes);
        }
        int looked = position.size() * characters > LARGE ? LOOKED_AT / 2 : LOOKED_AT;
        List<Candidate> ranked = best(candidates, looked);
        EvaluatedSplit chosen = new EvaluatedSplit(ranked.get(0), position);
        for (int r = 1; r < ranked.size(); r++) {
            EvaluatedSplit next = new EvaluatedSplit(ranked.get(r), position);
            if (Candidate.compare(next.candidate, next.value, chosen.candidate, chosen.value) < 0) {
                chosen = next;
            }
        }
        List<Candidate> alternatives = oneACharacter(candidates, chosen.candidate);
        double between = from + (to - from) * chosen.firstShare();
        KeyTree first = grow(chosen.first, chosen.firstCandidates, from, between);
        KeyTree second = grow(chosen.second, chosen.secondCandidates, between, to);
        return new KeyTree.Choice(chosen.candidate, alternatives, first, second);
    }

    private static List<Candidate> best(List<Candidate> candidates, int most) {
        List<Candidate> sorted = new ArrayList<>(candidates);
        sorted.sort((a, b) -> Candidate.compare(a, a.score(), b, b.score()));
        return sorted.subList(0, Math.min(most, sorted.size()));
    }

    private static Candidate top(List<Candidate> candidates) {
        Candidate top = candidates.get(0);
        for (Candidate candidate : candidates) {
            if (Candidate.compare(candidate, candidate.score(), top, top.score()) < 0) {
                top = candidate;
            }
        }
        return top;
    }

    private static List<Candidate> oneACharacter(List<Candidate> candidates, Candidate chosen) {
        List<Candidate> sorted = best(candidates, candidates.size());
        List<Candidate> kept = new ArrayList<>();
        List<Integer> seen = new ArrayList<>(List.of(chosen.split().character()));
        for (Candidate candidate : sorted) {
            if (kept.size() < ALTERNATIVES && !seen.contains(candidate.split().character())) {
                seen.add(candidate.split().character());
                kept.add(candidate);
            }
        }
        return kept;
    }

    /** A split judged together with the best next split of each lead. */
    private final class EvaluatedSplit {
        final Candidate candidate;
        final Position first;
        final Position second;
        final List<Candidate> firstCandidates;
        final List<Candidate> secondCandidates;
        final double value;

        EvaluatedSplit(Candidate candidate, Position position) {
            this.candidate = candidate;
            first = position.follow(candidate.split(), true);
            second = position.follow(candidate.split(), false);
            firstCandidates = surveyor.candidates(first);
            secondCandidates = surveyor.candidates(second);
            double gain = candidate.netGain();
            double rate = candidate.rate();
            for (int side = 0; side < 2; side++) {
                List<Candidate> next = side == 0 ? firstCandidates : secondCandidates;
                double part = side == 0 ? firstShare() : 1 - firstShare();
                if (!next.isEmpty()) {
                    Candidate top = top(next);
                    gain += part * top.netGain();
                    rate += part * top.rate();
                }
            }
            value = gain / rate;
        }

        /** Part of the specimens that take the first lead. */
        double firstShare() {
            double total = first.total + second.total;
            return total > 0 ? first.total / total : 0.5;
        }
    }
}
