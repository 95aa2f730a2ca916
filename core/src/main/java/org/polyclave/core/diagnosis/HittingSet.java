package org.polyclave.core.diagnosis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.polyclave.core.separation.PairVerdicts;

/**
 * The cheapest characters of which each rival gets as many groups as it needs, by branch and bound.
 *
 * <p>The upper bound begins with the greedy choice (V. Chv&aacute;tal, A greedy heuristic for the set-covering problem,
 * Mathematics of Operations Research 4 (1979) 233–235) without what it made needless. The lower bound is the greater of two: a
 * dual ascent (D. Erlenkotter, A dual-based procedure for uncapacitated facility location, Operations Research 26 (1978)
 * 992–1009), prices of the rivals by which no character is overpaid; and the cheapest way to collect as much as is needed, if
 * every character counted in full for each rival that it helps. Costs are whole thousandths, so a bound is rounded up to what
 * costs can sum to. Deterministic.
 */
final class HittingSet {
    private static final double THOUSANDTHS = 1000;

    /** A row to be told apart: by which characters, by how many of their groups. */
    record Rival(BitSet characters, int need) {}

    /** @param bound no set that does the same costs less */
    record Solution(List<Integer> characters, double cost, double bound, boolean proven) {}

    private final int rivals;
    private final int words;
    private final int[] cost;
    private final int unit;
    private final int[] groupOf;
    private final long[][] ofGroup;
    private final int nodes;
    private final Position root;

    private final List<Integer> chosen = new ArrayList<>();
    private List<Integer> best = List.of();
    private int bestCost = Integer.MAX_VALUE;
    private int visited;

    HittingSet(List<Rival> all, double[] costs, int[] groups, int nodes) {
        this.nodes = nodes;
        rivals = all.size();
        words = PairVerdicts.words(costs.length);
        cost = Arrays.stream(costs)
                .mapToInt(c -> (int) Math.round(c * THOUSANDTHS))
                .toArray();
        unit = Arrays.stream(cost).reduce(0, HittingSet::divisor);
        groupOf = groups;
        int most = Arrays.stream(groups).max().orElse(0) + 1;
        ofGroup = new long[most][words];
        for (int c = 0; c < groups.length; c++) {
            ofGroup[groups[c]][c / Long.SIZE] |= 1L << (c % Long.SIZE);
        }
        root = new Position(new int[rivals], new long[rivals * words]);
        for (int r = 0; r < rivals; r++) {
            root.need[r] = all.get(r).need();
            long[] bits = all.get(r).characters().toLongArray();
            System.arraycopy(bits, 0, root.useful, r * words, bits.length);
        }
    }

    private static int divisor(int a, int b) {
        return b == 0 ? a : divisor(b, a % b);
    }

    /** What each rival still needs, and the characters that would help it: of groups that it does not have yet. */
    private record Position(int[] need, long[] useful) {
        Position copy() {
            return new Position(need.clone(), useful.clone());
        }
    }

    Solution search() {
        greedy();
        int rootBound = bound(root, Integer.MAX_VALUE);
        branch(root, 0);
        boolean proven = visited <= nodes || rootBound >= bestCost;
        return new Solution(
                best.stream().sorted().toList(),
                bestCost / THOUSANDTHS,
                (proven ? bestCost : rootBound) / THOUSANDTHS,
                proven);
    }

    private void choose(Position position, int c) {
        long[] group = ofGroup[groupOf[c]];
        for (int r = 0; r < rivals; r++) {
            int at = r * words;
            if (position.need[r] > 0 && (position.useful[at + c / Long.SIZE] >>> c & 1) == 1) {
                position.need[r]--;
                for (int w = 0; w < words; w++) {
                    position.useful[at + w] = position.need[r] == 0 ? 0 : position.useful[at + w] & ~group[w];
                }
            }
        }
    }

    private static boolean isDone(Position position) {
        return Arrays.stream(position.need).noneMatch(n -> n > 0);
    }

    private void greedy() {
        Position position = root.copy();
        List<Integer> greedy = new ArrayList<>();
        while (!isDone(position)) {
            int[] gains = gains(position);
            int next = IntStream.range(0, cost.length)
                    .boxed()
                    .max(Comparator.comparingDouble((Integer c) -> gains[c] / (double) cost[c])
                            .thenComparing(c -> -c))
                    .orElseThrow();
            greedy.add(next);
            choose(position, next);
        }
        // What came in early may be needless by now.
        for (int c : greedy.stream()
                .sorted(Comparator.comparingInt((Integer c) -> -cost[c]))
                .toList()) {
            Position without = root.copy();
            greedy.stream().filter(g -> g != c).forEach(g -> choose(without, g));
            if (isDone(without)) {
                greedy.remove((Integer) c);
            }
        }
        best = List.copyOf(greedy);
        bestCost = greedy.stream().mapToInt(c -> cost[c]).sum();
    }

    /** How many rivals each character would help. */
    private int[] gains(Position position) {
        int[] gains = new int[cost.length];
        for (int r = 0; r < rivals; r++) {
            for (int w = 0; w < words; w++) {
                for (long bits = position.useful[r * words + w]; bits != 0; bits &= bits - 1) {
                    gains[w * Long.SIZE + Long.numberOfTrailingZeros(bits)]++;
                }
            }
        }
        return gains;
    }

    private static boolean isEmpty(long[] sets, int from, int length) {
        for (int w = from; w < from + length; w++) {
            if (sets[w] != 0) {
                return false;
            }
        }
        return true;
    }

    /** What the rest costs at least; above {@code enough} it may stop short. Greatest if the rest cannot be done. */
    private int bound(Position position, int enough) {
        long needed = 0;
        for (int r = 0; r < rivals; r++) {
            needed += position.need[r];
            if (position.need[r] > 0 && isEmpty(position.useful, r * words, words)) {
                return Integer.MAX_VALUE;
            }
        }
        int collected = rounded(collecting(gains(position), needed));
        return collected >= enough ? collected : Math.max(collected, rounded(ascent(position)));
    }

    private int rounded(double bound) {
        return bound >= Integer.MAX_VALUE ? Integer.MAX_VALUE : (int) Math.ceil((bound - 1e-6) / unit) * unit;
    }

    private double collecting(int[] gains, long needed) {
        int[] order = IntStream.range(0, cost.length)
                .filter(c -> gains[c] > 0)
                .boxed()
                .sorted(Comparator.comparingDouble(c -> cost[c] / (double) gains[c]))
                .mapToInt(c -> c)
                .toArray();
        double sum = 0;
        long left = needed;
        for (int k = 0; k < order.length && left > 0; k++) {
            long taken = Math.min(left, gains[order[k]]);
            sum += cost[order[k]] * taken / (double) gains[order[k]];
            left -= taken;
        }
        return left > 0 ? Integer.MAX_VALUE : sum;
    }

    private double ascent(Position position) {
        double[] left = Arrays.stream(cost).asDoubleStream().toArray();
        double sum = 0;
        for (int r = 0; r < rivals; r++) {
            if (position.need[r] == 0) {
                continue;
            }
            double price = Double.POSITIVE_INFINITY;
            for (int w = 0; w < words; w++) {
                for (long bits = position.useful[r * words + w]; bits != 0; bits &= bits - 1) {
                    price = Math.min(price, left[w * Long.SIZE + Long.numberOfTrailingZeros(bits)]);
                }
            }
            for (int w = 0; w < words && price > 0; w++) {
                for (long bits = position.useful[r * words + w]; bits != 0; bits &= bits - 1) {
                    left[w * Long.SIZE + Long.numberOfTrailingZeros(bits)] -= price;
                }
            }
            sum += position.need[r] * price;
        }
        return sum;
    }

    private void branch(Position position, int sum) {
        if (++visited > nodes) {
            return;
        }
        int hardest = hardest(position);
        if (hardest < 0) {
            if (sum < bestCost) {
                best = List.copyOf(chosen);
                bestCost = sum;
            }
            return;
        }
        int bound = bound(position, bestCost - sum);
        if (bound == Integer.MAX_VALUE || sum + bound >= bestCost) {
            return;
        }
        int[] gains = gains(position);
        Position rest = position.copy();
        for (int c : candidates(position, hardest, gains)) {
            Position next = rest.copy();
            chosen.add(c);
            choose(next, c);
            branch(next, sum + cost[c]);
            chosen.remove(chosen.size() - 1);
            if (visited > nodes) {
                return;
            }
            // Sets with this candidate are all tried: from now on without it.
            for (int r = 0; r < rivals; r++) {
                rest.useful[r * words + c / Long.SIZE] &= ~(1L << (c % Long.SIZE));
            }
        }
    }

    /** The rival with the fewest characters left to help it; negative if none needs any. */
    private int hardest(Position position) {
        int hardest = -1;
        int fewest = Integer.MAX_VALUE;
        for (int r = 0; r < rivals; r++) {
            int ways = 0;
            for (int w = 0; w < words; w++) {
                ways += Long.bitCount(position.useful[r * words + w]);
            }
            if (position.need[r] > 0 && ways < fewest) {
                fewest = ways;
                hardest = r;
            }
        }
        return hardest;
    }

    private List<Integer> candidates(Position position, int rival, int[] gains) {
        List<Integer> candidates = new ArrayList<>();
        for (int c = 0; c < cost.length; c++) {
            if ((position.useful[rival * words + c / Long.SIZE] >>> c & 1) == 1) {
                candidates.add(c);
            }
        }
        candidates.sort(Comparator.comparingDouble((Integer c) -> -gains[c] / (double) cost[c])
                .thenComparing(c -> c));
        return candidates;
    }
}
