package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.polyclave.core.key.SearchNode.Question;
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
    /** Costs this close are the same. */
    static final double TOLERANCE = 1e-11;

    private static final int LOOKED_AT = 6;
    private static final int ALL = Integer.MAX_VALUE;
    private static final double CELLS_A_NODE = 2_000;
    /** Bounding a split costs this much of a node. */
    private static final double SHARE_OF_A_BOUND = 0.01;

    /** Beyond so many classes times characters the first tree takes the first splits that are good. */
    private static final int LARGE = 200_000;

    private static final double NEARLY = 0.996;
    /** Of a search, the share of its time that the first tree is said to take. */
    private static final double GROWING = 0.5;

    private static final double HALF = 0.5;

    /**
     * What is tried at one go, after the first tree.
     *
     * @param classes how many classes a position may have to be broadened; larger ones keep their split
     * @param width how many of its splits are tried
     * @param ahead whether splits are ranked together with the next ones first
     */
    private record Stage(int classes, int width, boolean ahead) {
        static Stage ahead(int classes) {
            return new Stage(classes, 1, true);
        }

        static Stage of(int classes, int width) {
            return new Stage(classes, width, false);
        }
    }

    private static final List<Stage> STAGES = List.of(
            Stage.ahead(24),
            Stage.ahead(96),
            Stage.ahead(400),
            Stage.ahead(ALL),
            Stage.of(6, ALL),
            Stage.of(12, 3),
            Stage.of(24, 2),
            Stage.of(8, ALL),
            Stage.of(16, 6),
            Stage.of(48, 2),
            Stage.of(14, 12),
            Stage.of(32, 4),
            Stage.of(100, 2),
            Stage.of(ALL, 3),
            Stage.of(10, ALL),
            Stage.of(32, 6),
            Stage.of(ALL, 6),
            Stage.of(ALL, 12),
            Stage.of(ALL, ALL));

    private final SplitCost cost;
    private final TreeCost treeCost;
    private final LeastSteps leastSteps;
    private final SplitSurveyor surveyor;
    private final CancelSignal cancel;
    private final Progress progress;
    private final double budget;
    private final boolean stepsOnly;
    private final boolean twoLeads;
    private final boolean large;
    private final double leastEffort;
    private final SearchNode root;
    private final Map<PositionKey, SearchNode> nodes = new HashMap<>();
    private double spent;

    /** @param mostNodes how many nodes may be opened for improving the first tree, which is made in any case */
    KeySearch(
            KeyProblem problem,
            SplitCost cost,
            TreeCost treeCost,
            LeastSteps leastSteps,
            CancelSignal cancel,
            Progress progress,
            double mostNodes,
            SetQuestions questions) {
        this.cost = cost;
        this.treeCost = treeCost;
        this.leastSteps = leastSteps;
        this.cancel = cancel;
        this.progress = progress;
        budget = mostNodes;
        surveyor = new SplitSurveyor(problem, cost, questions);
        large = isLarge(problem);
        stepsOnly = cost.objective().countsStepsOnly();
        twoLeads = problem.mostLeads == KeyOptions.TWO_LEADS;
        leastEffort = stepsOnly ? 1 : leastEffort(problem, cost.objective());
        root = node(Position.start(problem));
    }

    private static double leastEffort(KeyProblem problem, KeyObjective objective) {
        double least = Double.POSITIVE_INFINITY;
        for (int c = 0; c < problem.matrix.characterCount(); c++) {
            MatrixCharacter character = problem.matrix.character(c);
            least = character.role().decides() ? Math.min(least, objective.effort(character)) : least;
        }
        return Double.isInfinite(least) ? 0 : least;
    }

    static boolean isLarge(KeyProblem problem) {
        return (long) problem.classCount * problem.matrix.characterCount() > LARGE;
    }

    /** The cheapest tree that was found, with its cost: mass times couplets, and losses. */
    record Found(KeyTree tree, double cost) {}

    /** Whether a first tree that is made in a hurry is another than one that takes its time. */
    boolean mayHurry() {
        return large && stepsOnly;
    }

    /**
     * The first tree, by greedy choice.
     *
     * @param hurried whether, where that saves much time, the first splits that are good will do
     * @param mostEnds a tree that stops at more leads is given up
     * @return empty if it was given up, or the search was cancelled before there was one
     */
    Optional<Found> grow(double mostEnds, boolean hurried) {
        grow(root, hurried && mayHurry(), mostEnds, 0, GROWING);
        return found(mostEnds);
    }

    /** The cheapest tree that is found until the budget ends or the search is cancelled, once there is a first one. */
    Optional<Found> improve(double mostEnds) {
        for (int stage = 0; stage < STAGES.size() && !isSpent() && !root.isSolved(); stage++) {
            refine(root, stage, Double.POSITIVE_INFINITY);
        }
        return found(mostEnds);
    }

    /** Both in one. */
    Optional<Found> run(double mostEnds) {
        return grow(mostEnds, false).isPresent() ? improve(mostEnds) : Optional.empty();
    }

    private Optional<Found> found(double mostEnds) {
        boolean whole = Double.isFinite(root.best) && root.ends <= mostEnds;
        return whole ? Optional.of(new Found(root.tree(), root.best)) : Optional.empty();
    }

    /** No tree costs less. */
    double bound() {
        return root.bound;
    }

    private boolean isSpent() {
        return spent >= budget || cancel.isCancelled();
    }

    private SearchNode node(Position position) {
        return nodes.computeIfAbsent(
                PositionKey.of(position, !stepsOnly),
                key -> new SearchNode(position, leastEffort * leastSteps.of(position)));
    }

    private double asking(SearchNode node, Question question) {
        if (question.asking < 0) {
            question.asking = node.position.total * cost.asking(node.position, question.candidate.split());
        }
        return question.asking;
    }

    /** No trees of the leads of a question cost less. Leads that are not needed are not made for it. */
    private double below(SearchNode node, Question question) {
        if (question.isFollowed()) {
            return question.leads[0].bound + question.leads[1].bound;
        }
        if (question.below < 0) {
            spent += SHARE_OF_A_BOUND;
            Split split = question.candidate.split();
            question.below = leastEffort
                    * (leastSteps.of(node.position, split, true) + leastSteps.of(node.position, split, false));
        }
        return question.below;
    }

    private void makeLeads(SearchNode node, Question question) {
        if (!question.isFollowed()) {
            question.leads[0] = node(node.position.follow(question.candidate.split(), true));
            question.leads[1] = node(node.position.follow(question.candidate.split(), false));
        }
    }

    /** Lists the splits of a position; in a hurry only until one is good. */
    private void open(SearchNode node, boolean hurried) {
        Position position = node.position;
        double enough = hurried ? NEARLY * position.mostGain() : Double.POSITIVE_INFINITY;
        SplitSurveyor.Survey survey = surveyor.survey(position, enough);
        List<Candidate> found = new ArrayList<>(survey.candidates());
        found.sort(Candidate.BEST_FIRST);
        if (stepsOnly && twoLeads && position.size() <= Long.SIZE) {
            found = distinct(position, found);
        }
        node.open(found, survey.all());
        node.beside = survey.beside();
        if (found.isEmpty()) {
            node.best = treeCost.loss(position, cost);
            node.bound = node.best;
            node.ends = 1;
        }
    }

    private void openAll(SearchNode node) {
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
    private void grow(SearchNode node, boolean hurried, double mostEnds, double from, double to) {
        if (cancel.isCancelled() || nodes.size() > 2 * mostEnds) {
            return;
        }
        if (!node.isOpen()) {
            open(node, hurried);
        }
        if (!node.questions.isEmpty() && node.chosen.isEmpty()) {
            Question greedy = node.questions.get(0);
            asking(node, greedy);
            makeLeads(node, greedy);
            double first = greedy.leads[0].position.total;
            double both = first + greedy.leads[1].position.total;
            double between = from + (to - from) * (both > 0 ? first / both : HALF);
            grow(greedy.leads[0], hurried, mostEnds, from, between);
            grow(greedy.leads[1], hurried, mostEnds, between, to);
            node.settle(greedy);
        }
        progress.report(to);
    }

    /** Looks for trees that cost less than {@code limit}; what costs more is not needed. */
    private void refine(SearchNode node, int stage, double limit) {
        boolean done = node.stage >= stage && limit <= node.limit;
        if (done || node.isSolved() || node.bound >= limit - TOLERANCE) {
            return;
        }
        Stage now = STAGES.get(stage);
        boolean broad = node.position.size() <= now.classes();
        if (broad || !node.isOpen()) {
            if (isSpent()) {
                return;
            }
            openAll(node);
        }
        if (node.questions.isEmpty()) {
            return;
        }
        if (broad && now.ahead()) {
            rankTogether(node);
        }
        Question kept = node.chosen.orElse(node.questions.get(0));
        follow(node, kept, stage, limit);
        int width = broad ? Math.min(now.width(), node.questions.size()) : 0;
        for (int r = 0; r < width && !isSpent(); r++) {
            Question other = node.questions.get(r);
            if (other != kept) {
                follow(node, other, stage, Math.min(limit, node.best));
            }
        }
        if (isSpent()) {
            return;
        }
        if (width == node.questions.size()) {
            raiseBound(node);
        }
        node.stage = stage;
        node.limit = limit;
    }

    /** Refines the leads of a question as long as it may cost less than {@code limit}. */
    private void follow(SearchNode node, Question question, int stage, double limit) {
        double left = limit - asking(node, question);
        if (below(node, question) >= left - TOLERANCE) {
            return;
        }
        makeLeads(node, question);
        SearchNode first = question.leads[0];
        SearchNode second = question.leads[1];
        if (first.bound + second.bound < left - TOLERANCE) {
            refine(first, stage, left - second.bound);
            if (first.best + second.bound < left - TOLERANCE) {
                refine(second, stage, left - first.best);
            }
        }
        node.settle(question);
    }

    private void raiseBound(SearchNode node) {
        double least = Double.POSITIVE_INFINITY;
        for (Question question : node.questions) {
            least = Math.min(least, asking(node, question) + below(node, question));
        }
        node.bound = Math.min(node.best, Math.max(node.bound, least));
    }

    /** Ranks the most promising questions together with the best next question of each of their leads. */
    private void rankTogether(SearchNode node) {
        if (node.ranked) {
            return;
        }
        List<Question> looked = node.questions.subList(0, Math.min(LOOKED_AT, node.questions.size()));
        for (Question question : looked) {
            if (isSpent()) {
                return;
            }
            question.promise = promise(node, question);
        }
        node.ranked = true;
        looked.sort((a, b) -> Candidate.compare(a.candidate, a.promise, b.candidate, b.promise));
    }

    private double promise(SearchNode node, Question question) {
        makeLeads(node, question);
        double gain = question.candidate.netGain();
        double rate = question.candidate.rate();
        double total = question.leads[0].position.total + question.leads[1].position.total;
        for (SearchNode next : question.leads) {
            openAll(next);
            double part = total > 0 ? next.position.total / total : HALF;
            if (!next.questions.isEmpty()) {
                gain += part * next.questions.get(0).candidate.netGain();
                rate += part * next.questions.get(0).candidate.rate();
            }
        }
        return gain / Math.max(rate, Candidate.LEAST_RATE);
    }
}
