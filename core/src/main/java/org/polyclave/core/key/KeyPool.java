package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;

/**
 * The trees that were searched for every objective, each judged by all of them: so that no key is worse by its own measure than one that was
 * made for something else. What is found does not depend on which objective is wanted; but for large problems only the fewest steps and
 * what is wanted are searched for.
 */
final class KeyPool {
    /** Shares and costs this close are the same. */
    private static final double ALIKE = 1e-11;

    private static final int MOST_ROOTS = 8;
    /** With fewer, to begin otherwise is not worth it. */
    private static final int NODES_A_ROOT = 600;

    private static final double HALF = 0.5;
    private static final double SAFER_MAY_COST = 1.1;

    private final Map<KeyObjective, SplitCost> costs = new EnumMap<>(KeyObjective.class);
    /** By objective, what no tree costs less than. */
    private final Map<KeyObjective, Double> bounds = new EnumMap<>(KeyObjective.class);

    private final List<Judged> all = new ArrayList<>();
    private final KeyProblem problem;
    private final TreeCost treeCost;
    private final double mostEnds;
    private final KeyOptions options;
    private final double nodeBudget;
    private final SetQuestions questions;
    private final boolean large;
    private final boolean dangers;
    private final List<Observer> readers;

    /** A tree with what becomes of its readers, and what it costs under each objective. */
    record Judged(KeyTree tree, KeyRisk trained, KeyRisk novice, Map<KeyObjective, Double> costs) {
        double cost(KeyObjective objective) {
            return rounded(Objects.requireNonNull(costs.get(objective)));
        }

        /** Of some readers: dangerous specimens under names not marked so; where there is no danger, all wrong names. */
        double harm(boolean dangers, List<Observer> readers) {
            double sum = 0;
            for (Observer reader : readers) {
                KeyRisk risk = reader == Observer.TRAINED ? trained : novice;
                sum += dangers ? risk.dangerousWrong() : risk.wrong();
            }
            return rounded(sum);
        }

        /** What differs by less than numbers are worked out to is equal. */
        private static double rounded(double value) {
            return Math.rint(value / ALIKE) * ALIKE;
        }
    }

    /** @param mostEnds a tree with more leads at which it stops is given up */
    KeyPool(KeyProblem problem, KeyOptions options, double mostEnds) {
        this.problem = problem;
        this.mostEnds = mostEnds;
        this.options = options;
        nodeBudget = options.nodeBudget();
        questions = new SetQuestions(problem, options.questions());
        large = KeySearch.isLarge(problem);
        Position start = Position.start(problem);
        dangers = start.holdsDangerous() && !start.holdsDangersOnly();
        treeCost = new TreeCost(problem);
        readers = options.readers().map(List::of).orElse(List.of(Observer.values()));
        Set<KeyObjective> tried =
                large ? EnumSet.of(KeyObjective.FEWEST, options.objective()) : EnumSet.allOf(KeyObjective.class);
        tried.forEach(objective -> costs.put(objective, new SplitCost(problem, objective, options)));
    }

    /**
     * Searches until the budget ends or somebody cancels.
     *
     * @param found run whenever there is a better tree, or the first
     */
    void search(CancelSignal cancel, Progress progress, Runnable found) {
        boolean several = problem.mostLeads > KeyOptions.TWO_LEADS;
        searchOwn(cancel, several ? share -> progress.report(HALF * share) : progress, found);
        if (several && !all.isEmpty() && !cancel.isCancelled()) {
            searchTwoLeads(cancel, share -> progress.report(HALF + HALF * share), found);
        }
    }

    /** A key of two leads a couplet is one of at most so many, too, and often the safer one. */
    private void searchTwoLeads(CancelSignal cancel, Progress progress, Runnable found) {
        KeyProblem two = new KeyProblem(problem.matrix, options.evenWeights());
        KeyPool pool = new KeyPool(two, options.withLeads(KeyOptions.TWO_LEADS), mostEnds);
        pool.search(cancel, progress, () -> {});
        if (!pool.isEmpty()) {
            for (KeyObjective objective : costs.keySet()) {
                all.add(judged(joined(pool.best(objective).tree(), Position.start(problem))));
            }
            found.run();
        }
    }

    /** The same tree; choices that follow one another by one character are one couplet, as far as that may have so many leads. */
    private static KeyTree joined(KeyTree tree, Position position) {
        if (!(tree instanceof KeyTree.Choice choice)) {
            return tree;
        }
        Split split = choice.chosen().split();
        return new KeyTree.Choice(
                choice.chosen(),
                choice.alternatives(),
                joined(choice.first(), position.follow(split, true)),
                joined(choice.second(), position.follow(split, false)),
                position.goesOn(split));
    }

    private void searchOwn(CancelSignal cancel, Progress progress, Runnable found) {
        LeastSteps leastSteps = new LeastSteps(problem);
        int done = 0;
        boolean otherRoots =
                !large && roots() > 0 && questions.at(Position.start(problem)).isEmpty();
        int works = costs.size() * (otherRoots ? 2 : 1);
        for (Map.Entry<KeyObjective, SplitCost> each : costs.entrySet()) {
            if (cancel.isCancelled()) {
                return;
            }
            double from = done++;
            Progress part = share -> progress.report((from + share) / works);
            KeySearch search = search(each.getValue(), leastSteps, cancel, part);
            Optional<KeySearch.Found> first = search.grow(mostEnds, true);
            if (first.isPresent() && all.isEmpty()) {
                all.add(judged(first.get().tree()));
                found.run();
                all.clear();
            }
            if (first.isPresent() && search.mayHurry() && nodeBudget > 0) {
                KeySearch thorough = search(each.getValue(), leastSteps, cancel, part);
                if (thorough.grow(mostEnds, false).isPresent()) {
                    search = thorough;
                }
            }
            if (first.isPresent()) {
                KeySearch.Found last = search.improve(mostEnds).orElse(first.get());
                all.add(judged((last.cost() <= first.get().cost() ? last : first.get()).tree()));
                found.run();
            }
            bounds.put(each.getKey(), search.bound());
            part.report(1);
        }
        if (otherRoots && !all.isEmpty()) {
            double before = done;
            searchOtherRoots(leastSteps, cancel, share -> progress.report(before * (1 + share) / works), found);
        }
    }

    private KeySearch search(SplitCost cost, LeastSteps leastSteps, CancelSignal cancel, Progress progress) {
        return new KeySearch(problem, cost, treeCost, leastSteps, cancel, progress, nodeBudget, questions);
    }

    /**
     * What is safest is not what is cheapest, and no bound leads to it; and a large problem is not searched to its end. So trees are
     * searched, too, that begin with each of the characters that look best, which together take as long as all before.
     */
    private void searchOtherRoots(LeastSteps leastSteps, CancelSignal cancel, Progress progress, Runnable found) {
        List<Integer> roots = new SplitSurveyor(problem, cost(KeyObjective.CAUTIOUS), questions)
                .candidates(Position.start(problem)).stream()
                        .sorted(Candidate.BEST_FIRST)
                        .map(c -> c.split().character())
                        .distinct()
                        .limit(roots())
                        .toList();
        for (int r = 0; r < roots.size() && !cancel.isCancelled(); r++) {
            SetQuestions set = questions.beginningWith(roots.get(r));
            // What is good for another aim is often safe, too: who is asked less misreads less.
            for (SplitCost cost : costs.values()) {
                double nodes = nodeBudget / roots();
                new KeySearch(problem, cost, treeCost, leastSteps, cancel, Progress.UNSEEN, nodes, set)
                        .run(mostEnds)
                        .ifPresent(best -> all.add(judged(best.tree())));
            }
            progress.report((r + 1.0) / roots.size());
            found.run();
        }
    }

    private int roots() {
        return (int) Math.min(MOST_ROOTS, nodeBudget / NODES_A_ROOT);
    }

    private Judged judged(KeyTree tree) {
        Map<KeyObjective, Double> each = new EnumMap<>(KeyObjective.class);
        costs.forEach((objective, cost) -> each.put(objective, treeCost.of(tree, cost)));
        return new Judged(tree, treeCost.risk(tree, Observer.TRAINED), treeCost.risk(tree, Observer.NOVICE), each);
    }

    /** Whether no tree is complete. */
    boolean isEmpty() {
        return all.isEmpty();
    }

    SplitCost cost(KeyObjective objective) {
        return Objects.requireNonNull(costs.get(objective));
    }

    /**
     * The cheapest tree for an objective; of equals the first that was found. Where safety comes first, of those that do no more harm
     * than the key of any other objective the cheapest is looked for, and of those that cost little more the safest is taken: the least
     * harm of all would be bought with any number of couplets.
     */
    Judged best(KeyObjective objective) {
        Comparator<Judged> byCost = Comparator.comparingDouble(judged -> judged.cost(objective));
        if (!objective.isSafetyFirst()) {
            return all.stream().min(byCost).orElseThrow();
        }
        double mostHarm = leastHarmOfOthers();
        List<Judged> harmless = all.stream()
                .filter(judged -> judged.harm(dangers, readers) <= mostHarm)
                .sorted(byCost)
                .toList();
        double mostCost = SAFER_MAY_COST * harmless.get(0).cost(objective);
        return harmless.stream()
                .filter(judged -> judged.cost(objective) <= mostCost)
                .min(Comparator.comparingDouble(judged -> judged.harm(dangers, readers)))
                .orElseThrow();
    }

    private double leastHarmOfOthers() {
        return costs.keySet().stream()
                .filter(other -> !other.isSafetyFirst())
                .mapToDouble(other -> best(other).harm(dangers, readers))
                .min()
                .orElse(Double.POSITIVE_INFINITY);
    }

    /** No key has fewer expected steps. */
    double leastSteps() {
        return bound(KeyObjective.FEWEST);
    }

    private double bound(KeyObjective objective) {
        return bounds.getOrDefault(objective, 0.0);
    }

    /** Whether it is known that no key serves an objective better. What is cheapest need not be what is safest. */
    boolean isBest(KeyObjective objective) {
        return !objective.isSafetyFirst() && best(objective).cost(objective) - bound(objective) <= ALIKE;
    }

    List<KeyResult.Compared> compared() {
        List<KeyResult.Compared> compared = new ArrayList<>();
        for (KeyObjective objective : costs.keySet()) {
            Judged judged = best(objective);
            compared.add(new KeyResult.Compared(
                    objective,
                    judged.tree().couplets(),
                    judged.cost(KeyObjective.FEWEST),
                    judged.tree().longestPath(),
                    judged.trained(),
                    judged.novice()));
        }
        return compared;
    }
}
