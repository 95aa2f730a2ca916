package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.run.Completion;

/**
 * Diagnoses: for a row the cheapest set of characters that together tell it from every row of another taxon, each by one
 * independent group, or by k of them where that many exist.
 *
 * <p>A hitting set of least weight, by branch and bound: the upper bound begins with the greedy choice (V. Chv&aacute;tal, A
 * greedy heuristic for the set-covering problem, Mathematics of Operations Research 4 (1979) 233–235), the lower bound is a dual
 * ascent (D. Erlenkotter, A dual-based procedure for uncapacitated facility location, Operations Research 26 (1978) 992–1009):
 * prices of the rivals that no character is overpaid by. Deterministic. Exponential at worst; it stops after a number of nodes
 * with the best found and the bound.
 */
public final class Diagnoses {
    private static final double ERROR_WEIGHT = 5;
    private static final double LEAST_EFFORT = 0.1;
    private static final double EPSILON = 1e-9;

    private final Matrix matrix;
    private final StrictSeparation separation;
    private final Observer observer;
    private final int nodes;

    /** @param nodes most positions of the search, for each row */
    public Diagnoses(Matrix matrix, SeparationContext context, Observer observer, int nodes) {
        this.matrix = matrix;
        this.separation = new StrictSeparation(matrix, context);
        this.observer = observer;
        this.nodes = nodes;
    }

    /** What looking at a character costs in a row: its minutes, and five for each time that it is misread there. */
    public double cost(int row, int character) {
        MatrixCharacter of = matrix.character(character);
        return Math.max(LEAST_EFFORT, of.effort())
                + ERROR_WEIGHT * of.misreading().rate(observer, row);
    }

    /** @param k independent groups wanted against each rival */
    public Diagnosis of(int row, int k) {
        List<Rival> rivals = new ArrayList<>();
        List<Diagnosis.Shortfall> shortfalls = new ArrayList<>();
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (matrix.row(i).target() != matrix.row(row).target()) {
                List<Integer> separating = separation.separating(row, i);
                int groups = separation.groups(separating);
                if (groups < k) {
                    shortfalls.add(new Diagnosis.Shortfall(i, groups));
                }
                if (groups > 0) {
                    rivals.add(new Rival(bits(separating), Math.min(k, groups)));
                }
            }
        }
        double[] cost = new double[matrix.characterCount()];
        for (int c = 0; c < cost.length; c++) {
            cost[c] = cost(row, c);
        }
        Search search = new Search(withoutImplied(rivals), cost);
        search.run();
        return new Diagnosis(
                row,
                search.best.stream().sorted().toList(),
                search.bestCost,
                search.isProven() ? search.bestCost : search.rootBound,
                search.isProven() ? Completion.OPTIMAL : Completion.BUDGET_EXHAUSTED,
                shortfalls);
    }

    private static BitSet bits(List<Integer> characters) {
        BitSet bits = new BitSet();
        characters.forEach(bits::set);
        return bits;
    }

    /** A row to be told apart: by which characters, by how many of their groups. */
    private record Rival(BitSet characters, int need) {}

    /** What tells a rival apart that is told by fewer characters does for one that is told by more. */
    private static List<Rival> withoutImplied(List<Rival> rivals) {
        List<Rival> sorted = new ArrayList<>(rivals);
        sorted.sort(Comparator.comparingInt((Rival r) -> r.characters().cardinality())
                .thenComparingInt(r -> -r.need()));
        List<Rival> kept = new ArrayList<>();
        for (Rival rival : sorted) {
            boolean implied = kept.stream().anyMatch(k -> k.need() >= rival.need() && isWithin(k, rival));
            if (!implied) {
                kept.add(rival);
            }
        }
        return kept;
    }

    private static boolean isWithin(Rival few, Rival many) {
        BitSet outside = (BitSet) few.characters().clone();
        outside.andNot(many.characters());
        return outside.isEmpty();
    }

    private final class Search {
        private final List<Rival> rivals;
        private final double[] cost;
        private final List<Integer> chosen = new ArrayList<>();
        private List<Integer> best = List.of();
        private double bestCost = Double.POSITIVE_INFINITY;
        private double rootBound;
        private int visited;

        Search(List<Rival> rivals, double[] cost) {
            this.rivals = rivals;
            this.cost = cost;
        }

        void run() {
            BitSet allowed = new BitSet();
            rivals.forEach(r -> allowed.or(r.characters()));
            greedy(allowed);
            rootBound = bound(allowed);
            branch(allowed, 0);
        }

        boolean isProven() {
            return visited <= nodes || rootBound >= bestCost - EPSILON;
        }

        private void greedy(BitSet allowed) {
            double sum = 0;
            while (true) {
                int next = -1;
                double value = 0;
                for (int c = allowed.nextSetBit(0); c >= 0; c = allowed.nextSetBit(c + 1)) {
                    double gained = gain(c) / cost[c];
                    if (gained > value + EPSILON) {
                        value = gained;
                        next = c;
                    }
                }
                if (next < 0) {
                    break;
                }
                chosen.add(next);
                sum += cost[next];
            }
            // What came in early may be needless by now.
            for (int c : List.copyOf(chosen).stream()
                    .sorted(Comparator.comparingDouble((Integer c) -> -cost[c]))
                    .toList()) {
                chosen.remove((Integer) c);
                if (rivals.stream().allMatch(r -> missing(r) <= 0)) {
                    sum -= cost[c];
                } else {
                    chosen.add(c);
                }
            }
            best = List.copyOf(chosen);
            bestCost = sum;
            chosen.clear();
        }

        private int gain(int character) {
            int gain = 0;
            for (Rival rival : rivals) {
                gain += helps(character, rival) && missing(rival) > 0 ? 1 : 0;
            }
            return gain;
        }

        /** Whether a character tells a rival apart by a group of which nothing was chosen against it. */
        private boolean helps(int character, Rival rival) {
            if (!rival.characters().get(character)) {
                return false;
            }
            int group = matrix.character(character).group();
            for (int c : chosen) {
                if (rival.characters().get(c) && matrix.character(c).group() == group) {
                    return false;
                }
            }
            return true;
        }

        private int missing(Rival rival) {
            int groups = 0;
            for (int k = 0; k < chosen.size(); k++) {
                int c = chosen.get(k);
                boolean first = rival.characters().get(c);
                for (int j = 0; j < k && first; j++) {
                    int other = chosen.get(j);
                    first = !rival.characters().get(other)
                            || matrix.character(other).group()
                                    != matrix.character(c).group();
                }
                groups += first ? 1 : 0;
            }
            return rival.need() - groups;
        }

        /** What telling the rest apart costs at least, with these characters; infinite if it cannot be done. */
        private double bound(BitSet allowed) {
            double[] left = cost.clone();
            double sum = 0;
            for (Rival rival : rivals) {
                int missing = missing(rival);
                if (missing <= 0) {
                    continue;
                }
                double price = Double.POSITIVE_INFINITY;
                for (int c = next(rival, allowed, 0); c >= 0; c = next(rival, allowed, c + 1)) {
                    price = Math.min(price, left[c]);
                }
                if (price == Double.POSITIVE_INFINITY) {
                    return price;
                }
                for (int c = next(rival, allowed, 0); c >= 0; c = next(rival, allowed, c + 1)) {
                    left[c] -= price;
                }
                sum += missing * price;
            }
            return sum;
        }

        private int next(Rival rival, BitSet allowed, int from) {
            int c = rival.characters().nextSetBit(from);
            while (c >= 0 && !(allowed.get(c) && helps(c, rival))) {
                c = rival.characters().nextSetBit(c + 1);
            }
            return c;
        }

        private void branch(BitSet allowed, double sum) {
            if (++visited > nodes) {
                return;
            }
            Optional<Rival> hardest = hardest(allowed);
            if (hardest.isEmpty()) {
                if (sum < bestCost - EPSILON) {
                    best = List.copyOf(chosen);
                    bestCost = sum;
                }
                return;
            }
            if (sum + bound(allowed) >= bestCost - EPSILON) {
                return;
            }
            BitSet rest = (BitSet) allowed.clone();
            for (int c : candidates(hardest.get(), allowed)) {
                // Sets with the candidates before were tried; this one and all after go without them.
                rest.clear(c);
                chosen.add(c);
                branch((BitSet) rest.clone(), sum + cost[c]);
                chosen.remove(chosen.size() - 1);
                if (visited > nodes) {
                    return;
                }
            }
        }

        private Optional<Rival> hardest(BitSet allowed) {
            Optional<Rival> hardest = Optional.empty();
            int fewest = Integer.MAX_VALUE;
            for (Rival rival : rivals) {
                if (missing(rival) > 0) {
                    int ways = 0;
                    for (int c = next(rival, allowed, 0); c >= 0; c = next(rival, allowed, c + 1)) {
                        ways++;
                    }
                    if (ways < fewest) {
                        fewest = ways;
                        hardest = Optional.of(rival);
                    }
                }
            }
            return hardest;
        }

        private List<Integer> candidates(Rival rival, BitSet allowed) {
            List<Integer> candidates = new ArrayList<>();
            for (int c = next(rival, allowed, 0); c >= 0; c = next(rival, allowed, c + 1)) {
                candidates.add(c);
            }
            candidates.sort(Comparator.comparingDouble((Integer c) -> -gain(c) / cost[c])
                    .thenComparing(c -> c));
            return candidates;
        }
    }
}
