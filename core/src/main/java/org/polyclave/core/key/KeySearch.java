package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;

/**
 * Searches the cheapest tree of an objective. Positions are kept, each with the cheapest tree found so far and a bound below
 * which none can be; stage by stage more splits are tried in larger positions (iterative broadening: Ginsberg & Harvey 1992,
 * Artif. Intell. 55), the first being the greedy tree, the last all splits everywhere. So there is a tree soon, it never gets
 * dearer, and what has run to the end is the cheapest there is. A split whose leads cannot be cheap enough is not followed.
 *
 * <p>Deterministic for a budget of nodes. A node is a position opened, large ones counting as several. Greedy choice is by gain per
 * cost (a variant of the top-down induction of identification trees: Payne & Preece 1980, J. R. Statist. Soc. A 143).
 */
final class KeySearch {
    static final int ALTERNATIVES = 6;

    private static final int LOOKED_AT = 6;
    private static final int ALL = Integer.MAX_VALUE;
    private static final double CELLS_A_NODE = 2_000;
    /** Bounding a split costs this much of a node. */
    private static final double SHARE_OF_A_BOUND = 0.01;

    /** Beyond so many classes times characters the first tree takes the first splits that are good. */
    private static final int LARGE = 200_000;

    private static final double NEARLY = 0.97;
    /** Of a search, the share of its time that the first tree is said to take. */
    private static final double GROWING = 0.5;

    private static final double HALF = 0.5;
    private static final double TOLERANCE = 1e-11;

    /**
     * What is tried at one go.
     *
     * @param rows how many classes a position may have to be broadened; larger ones keep their split
     * @param width how many of its splits are tried
     * @param ahead whether splits are ranked together with the next ones first
     */
    private record Stage(int rows, int width, boolean ahead) {}

    private static final List<Stage> STAGES = List.of(
            new Stage(ALL, 1, false),
            new Stage(24, 1, true),
            new Stage(96, 1, true),
            new Stage(400, 1, true),
            new Stage(ALL, 1, true),
            new Stage(6, ALL, false),
            new Stage(12, 3, false),
            new Stage(24, 2, false),
            new Stage(8, ALL, false),
            new Stage(16, 6, false),
            new Stage(48, 2, false),
            new Stage(14, 12, false),
            new Stage(32, 4, false),
            new Stage(100, 2, false),
            new Stage(ALL, 3, false),
            new Stage(10, ALL, false),
            new Stage(32, 6, false),
            new Stage(ALL, 6, false),
            new Stage(ALL, 12, false),
            new Stage(ALL, ALL, false));

    private final KeyProblem problem;
    private final SplitCost cost;
    private final TreeCost treeCost;
    private final LeastSteps leastSteps;
    private final SplitSurveyor surveyor;
    private final CancelSignal cancel;
    private final Progress progress;
    private final double budget;
    private final boolean stepsOnly;
    private final boolean large;
    private final double leastEffort;
    private final Map<PositionKey, Node> nodes = new HashMap<>();
    private double spent;

    private static final Candidate[] NOT_OPEN = {};

    /** A position, with what is known of its trees. */
    private static final class Node {
        final Position position;
        /** No tree costs less. */
        double bound;
        /** Cost of the cheapest tree that is known. */
        double best = Double.POSITIVE_INFINITY;
        /** Ends of that tree. */
        double ends;
        /** Which of the candidates it begins with; -1: none is known, or the key stops here. */
        int chosen = -1;
        /** Best first; empty where the key stops. */
        Candidate[] candidates = NOT_OPEN;
        /** Whether these are all the splits there are. */
        boolean all;

        double[] asking = {};
        /** By candidate: below this neither lead's trees can be, as far as was worked out; -1: not yet. */
        double[] below = {};

        Node[] first = {};
        Node[] second = {};
        boolean ranked;
        /** The last stage that was run to its end here, and how dear a tree it might find. */
        int stage = -1;

        double limit;

        Node(Position position) {
            this.position = position;
        }

        boolean isOpen() {
            return candidates != NOT_OPEN;
        }

        /** Takes the splits that were found; the one that was chosen among fewer stays so. */
        void open(List<Candidate> found, boolean areAll) {
            Candidate before = chosen < 0 ? null : candidates[chosen];
            Node[] leads = chosen < 0 ? new Node[2] : new Node[] {first[chosen], second[chosen]};
            if (before != null && !found.contains(before)) {
                found.add(before);
            }
            all = areAll;
            candidates = found.toArray(new Candidate[0]);
            first = new Node[candidates.length];
            second = new Node[candidates.length];
            asking = new double[candidates.length];
            below = new double[candidates.length];
            Arrays.fill(asking, -1);
            Arrays.fill(below, -1);
            if (before != null) {
                chosen = found.indexOf(before);
                first[chosen] = leads[0];
                second[chosen] = leads[1];
            }
        }

        /** Exchanges a candidate with the one before it. */
        void swap(int r) {
            swap(candidates, r);
            swap(first, r);
            swap(second, r);
            swap(asking, r);
            swap(below, r);
            chosen = chosen == r ? r - 1 : chosen == r - 1 ? r : chosen;
        }

        private static void swap(double[] all, int r) {
            double before = all[r - 1];
            all[r - 1] = all[r];
            all[r] = before;
        }

        private static <T> void swap(T[] all, int r) {
            T before = all[r - 1];
            all[r - 1] = all[r];
            all[r] = before;
        }

        boolean isSolved() {
            return best - bound <= TOLERANCE;
        }
    }

    /**
     * @param mostNodes how many nodes may be opened for improving; the first tree is made in any case, within
     *     {@code mostEnds}
     */
    KeySearch(
            KeyProblem problem,
            SplitCost cost,
            TreeCost treeCost,
            LeastSteps leastSteps,
            CancelSignal cancel,
            Progress progress,
            double mostNodes) {
        this.problem = problem;
        this.cost = cost;
        this.treeCost = treeCost;
        this.leastSteps = leastSteps;
        this.cancel = cancel;
        this.progress = progress;
        budget = mostNodes;
        surveyor = new SplitSurveyor(problem, cost);
        large = isLarge(problem);
        stepsOnly = cost.objective().countsStepsOnly();
        double least = Double.POSITIVE_INFINITY;
        for (int c = 0; c < problem.matrix.characterCount(); c++) {
            MatrixCharacter character = problem.matrix.character(c);
            least = character.role().decides()
                    ? Math.min(least, cost.objective().effort(character))
                    : least;
        }
        leastEffort = stepsOnly ? 1 : Double.isInfinite(least) ? 0 : least;
    }

    static boolean isLarge(KeyProblem problem) {
        return (long) problem.classCount * problem.matrix.characterCount() > LARGE;
    }

    /**
     * The cheapest tree that was found.
     *
     * @param cost mass times couplets and losses
     * @param bound no tree costs less
     * @param ends leads at which it stops; more than {@code mostEnds}: it was given up, and there is no tree
     */
    record Found(KeyTree tree, double cost, double bound, double ends) {
        boolean isCheapest() {
            return cost - bound <= TOLERANCE;
        }
    }

    /** Ends early when it is cancelled, with the best that it has. */
    Found run(double mostEnds) {
        Node root = node(Position.start(problem));
        grow(root, mostEnds, 0, GROWING);
        for (int stage = 1; stage < STAGES.size() && !isSpent() && !root.isSolved(); stage++) {
            refine(root, stage, Double.POSITIVE_INFINITY);
        }
        KeyTree tree = Double.isInfinite(root.best) ? new KeyTree.Stop(root.position.classes) : tree(root);
        return new Found(tree, root.best, root.bound, Double.isInfinite(root.best) ? mostEnds + 1 : root.ends);
    }

    private boolean isSpent() {
        return spent >= budget || cancel.isCancelled();
    }

    private Node node(Position position) {
        return nodes.computeIfAbsent(PositionKey.of(position, !stepsOnly), key -> {
            Node node = new Node(position);
            node.bound = leastEffort * leastSteps.of(position);
            return node;
        });
    }

    private Node child(Node node, int r, boolean first) {
        Node[] children = first ? node.first : node.second;
        if (children[r] == null) {
            children[r] = node(node.position.follow(node.candidates[r].split(), first));
        }
        return children[r];
    }

    /** No trees of the leads of a candidate cost less. Leads that are not needed are not made for it. */
    private double below(Node node, int r) {
        if (node.first[r] != null && node.second[r] != null) {
            return node.first[r].bound + node.second[r].bound;
        }
        if (node.below[r] < 0) {
            spent += SHARE_OF_A_BOUND;
            Split split = node.candidates[r].split();
            node.below[r] = leastEffort
                    * (leastSteps.of(node.position, split, true) + leastSteps.of(node.position, split, false));
        }
        return node.below[r];
    }

    private double asking(Node node, int r) {
        if (node.asking[r] < 0) {
            node.asking[r] = node.position.total * cost.asking(node.position, node.candidates[r].split());
        }
        return node.asking[r];
    }

    /** Lists the splits of a position; for the first tree of a large problem only until one is good. */
    private void open(Node node, boolean hurried) {
        Position position = node.position;
        double enough = hurried && large && stepsOnly ? NEARLY * position.mostGain() : Double.POSITIVE_INFINITY;
        SplitSurveyor.Survey survey = surveyor.survey(position, enough);
        List<Candidate> found = new ArrayList<>(survey.candidates());
        found.sort((a, b) -> Candidate.compare(a, a.score(), b, b.score()));
        if (stepsOnly && position.size() <= Long.SIZE) {
            found = distinct(position, found);
        }
        node.open(found, survey.all());
        if (found.isEmpty()) {
            node.best = treeCost.loss(position, cost.objective());
            node.bound = node.best;
            node.ends = 1;
        }
    }

    private void openAll(Node node) {
        if (!node.all) {
            spent += 1 + (double) node.position.size() * node.position.masks.length / CELLS_A_NODE;
            progress.report(GROWING + (1 - GROWING) * Math.min(1, spent / budget));
            open(node, false);
        }
    }

    /** Of splits that send every class down one lead only, and part them alike, the first: what follows is the same. */
    private static List<Candidate> distinct(Position position, List<Candidate> candidates) {
        Set<Long> known = new HashSet<>();
        List<Candidate> kept = new ArrayList<>();
        for (Candidate candidate : candidates) {
            if (candidate.duplicated() > 0 || known.add(besideTheFirst(position, candidate.split()))) {
                kept.add(candidate);
            }
        }
        return kept;
    }

    /** The classes that go the way of the first one: the same for a split and its mirror image. */
    private static long besideTheFirst(Position position, Split split) {
        boolean side = position.enters(0, split, true);
        long classes = 0;
        for (int k = 0; k < position.size(); k++) {
            classes |= position.enters(k, split, side) ? 1L << k : 0;
        }
        return classes;
    }

    /** The greedy tree, which is the part of the work from {@code from} to {@code to}. */
    private void grow(Node node, double mostEnds, double from, double to) {
        if (cancel.isCancelled() || nodes.size() > 2 * mostEnds) {
            return;
        }
        if (!node.isOpen()) {
            open(node, true);
        }
        if (node.candidates.length > 0 && node.chosen < 0) {
            Node first = child(node, 0, true);
            Node second = child(node, 0, false);
            double specimens = first.position.total + second.position.total;
            double between = from + (to - from) * (specimens > 0 ? first.position.total / specimens : HALF);
            grow(first, mostEnds, from, between);
            grow(second, mostEnds, between, to);
            settle(node, 0);
        }
        progress.report(to);
    }

    /** Takes a split whose leads have trees, if that is cheaper than what there is, or as cheap with fewer ends. */
    private void settle(Node node, int r) {
        Node first = child(node, r, true);
        Node second = child(node, r, false);
        double sum = asking(node, r) + first.best + second.best;
        double ends = first.ends + second.ends;
        boolean cheaper = sum < node.best - TOLERANCE || (sum <= node.best + TOLERANCE && ends < node.ends);
        if (cheaper || (r == node.chosen && sum <= node.best)) {
            node.best = sum;
            node.ends = ends;
            node.chosen = r;
        }
    }

    /** Looks for trees that cost less than {@code limit}; what costs more is not needed. */
    private void refine(Node node, int stage, double limit) {
        boolean done = node.stage >= stage && limit <= node.limit;
        if (done || node.isSolved() || node.bound >= limit - TOLERANCE) {
            return;
        }
        Stage now = STAGES.get(stage);
        boolean broad = node.position.size() <= now.rows();
        if (broad || !node.isOpen()) {
            if (isSpent()) {
                return;
            }
            openAll(node);
        }
        if (node.candidates.length == 0) {
            return;
        }
        if (broad && now.ahead()) {
            rankTogether(node);
        }
        int width = broad ? Math.min(now.width(), node.candidates.length) : 0;
        int kept = Math.max(0, node.chosen);
        follow(node, kept, stage, limit);
        for (int r = 0; r < width && !isSpent(); r++) {
            if (r != kept) {
                follow(node, r, stage, Math.min(limit, node.best));
            }
        }
        if (isSpent()) {
            return;
        }
        if (width == node.candidates.length) {
            raiseBound(node);
        }
        node.stage = stage;
        node.limit = limit;
    }

    /** Refines the leads of a split as long as it may cost less than {@code limit}. */
    private void follow(Node node, int r, int stage, double limit) {
        double left = limit - asking(node, r);
        if (below(node, r) >= left - TOLERANCE) {
            return;
        }
        Node first = child(node, r, true);
        Node second = child(node, r, false);
        if (first.bound + second.bound < left - TOLERANCE) {
            refine(first, stage, left - second.bound);
            if (first.best + second.bound < left - TOLERANCE) {
                refine(second, stage, left - first.best);
            }
        }
        settle(node, r);
    }

    private void raiseBound(Node node) {
        double least = Double.POSITIVE_INFINITY;
        for (int r = 0; r < node.candidates.length; r++) {
            least = Math.min(least, asking(node, r) + below(node, r));
        }
        node.bound = Math.min(node.best, Math.max(node.bound, least));
    }

    /** Ranks the most promising splits together with the best next split of each of their leads. */
    private void rankTogether(Node node) {
        if (node.ranked) {
            return;
        }
        int looked = Math.min(LOOKED_AT, node.candidates.length);
        double[] value = new double[looked];
        for (int r = 0; r < looked; r++) {
            if (isSpent()) {
                return;
            }
            value[r] = value(node, r);
        }
        node.ranked = true;
        for (int r = 1; r < looked; r++) {
            for (int q = r;
                    q > 0 && Candidate.compare(node.candidates[q], value[q], node.candidates[q - 1], value[q - 1]) < 0;
                    q--) {
                node.swap(q);
                double swapped = value[q];
                value[q] = value[q - 1];
                value[q - 1] = swapped;
            }
        }
    }

    private double value(Node node, int r) {
        double gain = node.candidates[r].netGain();
        double rate = node.candidates[r].rate();
        Node first = child(node, r, true);
        Node second = child(node, r, false);
        double total = first.position.total + second.position.total;
        for (Node next : new Node[] {first, second}) {
            openAll(next);
            double part = total > 0 ? next.position.total / total : HALF;
            if (next.candidates.length > 0) {
                gain += part * next.candidates[0].netGain();
                rate += part * next.candidates[0].rate();
            }
        }
        return gain / rate;
    }

    private KeyTree tree(Node node) {
        if (node.chosen < 0) {
            return new KeyTree.Stop(node.position.classes);
        }
        Candidate chosen = node.candidates[node.chosen];
        return new KeyTree.Choice(
                chosen,
                alternatives(node, chosen),
                tree(child(node, node.chosen, true)),
                tree(child(node, node.chosen, false)));
    }

    /** The best split of each of some other characters. */
    private static List<Candidate> alternatives(Node node, Candidate chosen) {
        List<Candidate> sorted = new ArrayList<>(Arrays.asList(node.candidates));
        sorted.sort((a, b) -> Candidate.compare(a, a.score(), b, b.score()));
        Set<Integer> known = new HashSet<>(Set.of(chosen.split().character()));
        List<Candidate> kept = new ArrayList<>();
        for (Candidate candidate : sorted) {
            if (kept.size() < ALTERNATIVES && known.add(candidate.split().character())) {
                kept.add(candidate);
            }
        }
        return kept;
    }
}
