package org.polyclave.core.margin;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.run.PortableMath;

/**
 * When a dangerous row counts as ruled out.
 *
 * <p>For each other row j the observations have a likelihood ratio Λ_j against the danger h, part by part: within a part
 * {@code [(1−η)·ΠF_j + η·Πb] / [(1−η)·ΠF_h + η·Πb]}, because a whole part may mislead. F_i is the probability of all looks at a
 * character for a specimen of row i, which draws its state once; b is that of the study. For h readers are taken to misread
 * twice as often as stated, and so for j where the two share a state. Rows count as alternatives by their likeness to h:
 * w_j ∝ 2^−d, d the usable characters in which they differ. The danger is ruled out while S = Σ w_j·Λ_j reaches T, and the
 * usable characters that speak against it outnumber those that speak for it by two, on two parts of which neither lies in the
 * other: in favour of the likeliest row of another name, or of the one that adds most to S.
 *
 * <p>Under a true h every Λ_j has an expectation of at most 1, so S is a test martingale: the chance that it ever reaches T,
 * at whatever moment and in whatever order, is at most 1/T (Ville 1939, Étude critique de la notion de collectif). What must
 * not count against a danger may lower its S, never raise it. One judgement takes O(rows · characters looked at · states) time.
 */
public final class SafetyMargin {
    /** S that rules out a serious danger. */
    public static final double SERIOUS = 150;
    /** S that rules out a life-threatening one. */
    public static final double LIFE_THREATENING = 300;

    static final double PART_MISLEADS = 0.03;
    static final double BLUNDER = 0.02;
    private static final double LEAST_STATED = 0.01;
    static final double MOST_MISREADING = 0.6;
    private static final int MOST_DIFFERENCES = 8;
    private static final int MOST_STEPS = 16;
    /** ΠF_j, ΠF_h and Πb of a part: of what counts, and of all. */
    private static final int PRODUCTS = 6;
    /** Rows by which the looks that are needed are reckoned: those most like the danger. */
    private static final int ALTERNATIVES = 32;

    private final Matrix matrix;
    private final Observer observer;
    private final UsableEvidence evidence;
    private final SafetyDistributions distributions;
    /** By dangerous row, as they are asked for. */
    private final Likeness[] likeness;

    /**
     * How like the others are to a danger.
     *
     * @param weights w_j of each row; 0 for the rows of the danger's own name
     * @param most those that are most like it, the likest first
     */
    private record Likeness(double[] weights, List<Integer> most) {}

    public SafetyMargin(Matrix matrix, Observer observer) {
        this.matrix = matrix;
        this.observer = observer;
        evidence = new UsableEvidence(matrix);
        distributions = new SafetyDistributions(matrix);
        likeness = new Likeness[matrix.rowCount()];
    }

    /** Makes looks ready to be weighed against one danger after another. */
    public WeighedLooks weighed(List<CharacterLooks> looked) {
        return new WeighedLooks(matrix, distributions, looked);
    }

    /**
     * How a danger stands.
     *
     * @param support S
     * @param needed T
     * @param against usable characters whose sure looks, net, speak against it
     * @param contrary characters whose sure looks, net, speak for it
     */
    public record Judgement(
            int danger,
            boolean ruledOut,
            double support,
            double needed,
            List<Integer> against,
            List<Integer> contrary) {
        public Judgement {
            against = List.copyOf(against);
            contrary = List.copyOf(contrary);
        }
    }

    /** S that rules out a danger of a severity. */
    public static double needed(Hazard hazard) {
        return hazard == Hazard.LIFE_THREATENING ? LIFE_THREATENING : SERIOUS;
    }

    /**
     * Judges one danger.
     *
     * @param leader the likeliest row of another name
     */
    public Judgement judge(int danger, int leader, WeighedLooks looked) {
        double[] weights = likeness(danger).weights();
        double[] room = new double[PRODUCTS * looked.partCount()];
        double support = 0;
        int strongest = leader;
        double most = 0;
        for (int j = 0; j < weights.length; j++) {
            double share = weights[j] > 0 ? weights[j] * ratio(danger, j, looked, room, false) : 0;
            support += share;
            if (share > most) {
                most = share;
                strongest = j;
            }
        }
        // Somebody may have vouched for other cells of the leader than of the row for which the evidence is.
        Judgement forLeader = inFavourOf(leader, danger, looked, support);
        Judgement forStrongest = inFavourOf(strongest, danger, looked, support);
        return forStrongest.ruledOut() && !forLeader.ruledOut() ? forStrongest : forLeader;
    }

    private Judgement inFavourOf(int leader, int danger, WeighedLooks looked, double support) {
        List<Integer> against = new ArrayList<>();
        List<Integer> contrary = new ArrayList<>();
        for (int k = 0; k < looked.size(); k++) {
            CharacterLooks one = looked.get(k).looked;
            int net = net(danger, leader, one);
            if (net > 0) {
                against.add(one.character());
            } else if (net < 0) {
                contrary.add(one.character());
            }
        }
        double needed = needed(matrix.row(danger).hazard());
        boolean enough = against.size() - contrary.size() >= UsableEvidence.NEEDED && evidence.areOfTwoParts(against);
        return new Judgement(danger, support >= needed && enough, support, needed, against, contrary);
    }

    /**
     * Whether the looks favour a row over another as strongly as a danger takes to be ruled out: odds of {@link #SERIOUS} with
     * readers who misread twice as often as stated, whatever part misleads. All that was examined counts, absence too.
     */
    public boolean isFirmlyFavoured(int row, int other, WeighedLooks looked) {
        return ratio(other, row, looked, new double[PRODUCTS * looked.partCount()], true) >= SERIOUS;
    }

    /** 1 if the sure looks contradict the danger and agree with the leader, net; −1 if they do the reverse; else 0. */
    private int net(int danger, int leader, CharacterLooks looked) {
        int c = looked.character();
        if (looked.rough() || !evidence.isCompared(danger, leader, c)) {
            return 0;
        }
        int notTheDanger = 0;
        int notTheLeader = 0;
        int either = 0;
        boolean usable = evidence.isUsable(danger, leader, c);
        for (int l = 0; l < looked.looks().size() && l < CharacterLooks.MOST; l++) {
            Look look = looked.looks().get(l);
            if (look.certainty() == Certainty.SURE) {
                boolean outsideDanger = distributions.isOutside(danger, c, look.observation());
                boolean outsideLeader = distributions.isOutside(leader, c, look.observation());
                boolean counts = usable && !evidence.isAbsence(c, look.observation());
                notTheDanger += outsideDanger && !outsideLeader && counts ? 1 : 0;
                notTheLeader += outsideLeader && !outsideDanger ? 1 : 0;
                either += outsideDanger || outsideLeader ? 0 : 1;
            }
        }
        // Looks that fit both take back what others said against the danger, but say nothing for it.
        if (notTheDanger > notTheLeader + either) {
            return 1;
        }
        return notTheLeader > notTheDanger ? -1 : 0;
    }

    private synchronized Likeness likeness(int danger) {
        if (likeness[danger] != null) {
            return likeness[danger];
        }
        double[] weights = new double[matrix.rowCount()];
        int[] differences = new int[weights.length];
        double total = 0;
        for (int j = 0; j < weights.length; j++) {
            differences[j] = -1;
            if (!matrix.sharesName(danger, j)) {
                differences[j] = differences(danger, j);
                weights[j] = PortableMath.exp2(-differences[j]);
                total += weights[j];
            }
        }
        for (int j = 0; j < weights.length; j++) {
            weights[j] = total > 0 ? weights[j] / total : 0;
        }
        List<Integer> most = new ArrayList<>();
        for (int d = 0; d <= MOST_DIFFERENCES; d++) {
            for (int j = 0; j < weights.length && most.size() < ALTERNATIVES; j++) {
                if (differences[j] == d) {
                    most.add(j);
                }
            }
        }
        likeness[danger] = new Likeness(weights, most);
        return likeness[danger];
    }

    private int differences(int danger, int j) {
        int differences = 0;
        for (int c = 0; c < matrix.characterCount() && differences < MOST_DIFFERENCES; c++) {
            boolean differ = evidence.isUsable(danger, j, c) && evidence.isDisjoint(danger, j, c);
            differences += differ ? 1 : 0;
        }
        return differences;
    }

    /**
     * Λ_j, part by part. What must not count against the danger, and would, is as if nobody had looked; what speaks for it is
     * weighed, and lowers the ratio of its part or leaves it.
     *
     * @param whatever whether what must not count against a danger counts all the same
     * @param room for the products of each part
     */
    private double ratio(int danger, int j, WeighedLooks looked, double[] room, boolean whatever) {
        for (int k = 0; k < room.length; k++) {
            room[k] = 1;
        }
        for (int k = 0; k < looked.size(); k++) {
            WeighedLooks.Weighed one = looked.get(k);
            if (evidence.isCompared(danger, j, one.looked.character())) {
                multiply(room, PRODUCTS * looked.partOf(k), danger, j, one, whatever);
            }
        }
        double ratio = 1;
        for (int part = 0; part < room.length; part += PRODUCTS) {
            double counting = ratio(room, part);
            double withAll = ratio(room, part + PRODUCTS / 2);
            ratio *= counting < withAll ? counting : withAll;
        }
        return ratio;
    }

    /** Of ΠF_j, ΠF_h and Πb. */
    private static double ratio(double[] products, int at) {
        double misled = PART_MISLEADS * products[at + 2];
        double its = (1 - PART_MISLEADS) * products[at + 1] + misled;
        return its > 0 ? ((1 - PART_MISLEADS) * products[at] + misled) / its : 1;
    }

    /** Multiplies F_j, F_h and b of a character in: to what counts, and to all that is weighed. */
    private void multiply(double[] room, int part, int danger, int j, WeighedLooks.Weighed one, boolean whatever) {
        int c = one.looked.character();
        double doubled = doubled(c, stated(danger, c));
        double b = one.background(doubled);
        double h = (1 - BLUNDER) * one.sum(danger, doubled) + BLUNDER * b;
        double rate = evidence.isDisjoint(danger, j, c) ? stated(j, c) : doubled;
        double own = (1 - BLUNDER) * one.sum(j, rate) + BLUNDER * b;
        boolean counts =
                !one.looked.rough() && (whatever || (evidence.isUsable(danger, j, c) && isPresence(one.looked)));
        if (counts) {
            multiply(room, part, own, h, b);
        }
        if (counts || own < h) {
            multiply(room, part + PRODUCTS / 2, own, h, b);
        }
    }

    private static void multiply(double[] products, int at, double own, double h, double b) {
        products[at] *= own;
        products[at + 1] *= h;
        products[at + 2] *= b;
    }

    /** Whether every look is sure enough, and of something that is there. */
    private boolean isPresence(CharacterLooks looked) {
        for (int l = 0; l < looked.looks().size() && l < CharacterLooks.MOST; l++) {
            Look look = looked.looks().get(l);
            if (look.certainty() == Certainty.UNSURE || evidence.isAbsence(looked.character(), look.observation())) {
                return false;
            }
        }
        return true;
    }

    private double stated(int row, int character) {
        return matrix.character(character).misreading().rate(observer, row);
    }

    /** Twice the stated misreading, but no more than guessing. */
    private double doubled(int character, double stated) {
        double twice = 2 * (stated > LEAST_STATED ? stated : LEAST_STATED);
        double guessing = 1 - 1.0 / distributions.atoms(character);
        double least = twice < guessing ? twice : guessing;
        return least < MOST_MISREADING ? least : MOST_MISREADING;
    }

    /** What readers who see all that a row shows can come to. */
    public BestCase bestCase(int row) {
        return new BestCase(row);
    }

    /** Every character seen as one row shows it, surely and as often as counts: what is said of it is worked out once. */
    public final class BestCase {
        private final int row;
        /** By character, as they are asked for. */
        private final Map<Integer, WeighedLooks.Weighed> seen = new LinkedHashMap<>();

        private BestCase(int row) {
            this.row = row;
        }

        /** Log₂ of what it adds to S of a danger at most, if these characters are looked at. */
        public double reach(int danger, List<Integer> characters) {
            List<WeighedLooks.Weighed> weighed = new ArrayList<>();
            for (int k = 0; k < characters.size(); k++) {
                weighed.add(seen(characters.get(k)));
            }
            WeighedLooks looked = new WeighedLooks(weighed, matrix, distributions);
            double ratio = likeness(danger).weights()[row]
                    * ratio(danger, row, looked, new double[PRODUCTS * looked.partCount()], false);
            return ratio > 0 ? PortableMath.log2(ratio) : Double.NEGATIVE_INFINITY;
        }

        private WeighedLooks.Weighed seen(int character) {
            WeighedLooks.Weighed known = seen.get(character);
            if (known == null) {
                List<Look> looks = new ArrayList<>();
                for (int l = 0; l < CharacterLooks.MOST; l++) {
                    looks.add(new Look(distributions.typical(row, character), Certainty.SURE));
                }
                List<CharacterLooks> alone = new ArrayList<>();
                alone.add(new CharacterLooks(character, looks, false));
                known = weighed(alone).get(0);
                seen.put(character, known);
            }
            return known;
        }
    }

    /**
     * The looks, in order, that would rule a danger out if each agreed with {@code other}: a part not seen yet first, then what
     * is misread least, then another look.
     *
     * @param characters those that may be looked at
     * @return the characters to look at, one entry a look; empty if they do not suffice
     */
    public List<Integer> looksNeeded(int danger, int other, WeighedLooks already, List<Integer> characters) {
        List<Integer> alternatives = alternatives(danger, other);
        WeighedLooks looked = already;
        List<Integer> steps = new ArrayList<>();
        while (steps.size() < MOST_STEPS) {
            if (inFavourOf(other, danger, looked, support(danger, alternatives, looked))
                    .ruledOut()) {
                return steps;
            }
            int next = next(danger, looked, characters);
            if (next < 0) {
                return new ArrayList<>();
            }
            looked = looked.with(next, new Look(distributions.typical(other, next), Certainty.SURE));
            steps.add(next);
        }
        return new ArrayList<>();
    }

    /** S from some of the rows, and so no more than S. */
    private double support(int danger, List<Integer> rows, WeighedLooks looked) {
        double[] weights = likeness(danger).weights();
        double[] parts = new double[PRODUCTS * looked.partCount()];
        double support = 0;
        for (int k = 0; k < rows.size(); k++) {
            support += weights[rows.get(k)] * ratio(danger, rows.get(k), looked, parts, false);
        }
        return support;
    }

    /** The row that is believed, and those that are most like the danger. */
    private List<Integer> alternatives(int danger, int other) {
        List<Integer> most = likeness(danger).most();
        if (most.contains(other)) {
            return most;
        }
        List<Integer> rows = new ArrayList<>(most);
        rows.add(other);
        return rows;
    }

    private int next(int danger, WeighedLooks looked, List<Integer> characters) {
        int best = -1;
        double least = Double.POSITIVE_INFINITY;
        for (int k = 0; k < characters.size(); k++) {
            int c = characters.get(k);
            int times = looked.times(c);
            double cost = (isPartSeen(looked, c) ? 1 : 0) + stated(danger, c) + 2.0 * times;
            if (times < CharacterLooks.MOST && cost < least) {
                least = cost;
                best = c;
            }
        }
        return best;
    }

    private boolean isPartSeen(WeighedLooks looked, int character) {
        for (int k = 0; k < looked.size(); k++) {
            MatrixCharacter other = matrix.character(looked.get(k).looked.character());
            if (!other.isApartFrom(matrix.character(character))) {
                return true;
            }
        }
        return false;
    }
}
