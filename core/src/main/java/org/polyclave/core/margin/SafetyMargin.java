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
 * other.
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
    private static final double EVEN_SHARE = 0.05;
    private static final double LEAST_STATED = 0.01;
    private static final double MOST_MISREADING = 0.6;
    private static final int MOST_DIFFERENCES = 8;
    private static final int MOST_STEPS = 16;

    private final Matrix matrix;
    private final Observer observer;
    private final UsableEvidence evidence;
    private final SafetyDistributions distributions;
    private final Map<Integer, double[]> likeness = new LinkedHashMap<>();

    public SafetyMargin(Matrix matrix, Observer observer) {
        this.matrix = matrix;
        this.observer = observer;
        evidence = new UsableEvidence(matrix);
        distributions = new SafetyDistributions(matrix);
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
    public Judgement judge(int danger, int leader, List<Looked> looked) {
        List<Integer> against = new ArrayList<>();
        List<Integer> contrary = new ArrayList<>();
        for (int k = 0; k < looked.size(); k++) {
            int net = net(danger, leader, looked.get(k));
            if (net > 0) {
                against.add(looked.get(k).character());
            } else if (net < 0) {
                contrary.add(looked.get(k).character());
            }
        }
        double support = support(danger, looked);
        double needed = needed(matrix.row(danger).hazard());
        boolean enough = against.size() - contrary.size() >= UsableEvidence.NEEDED && evidence.areOfTwoParts(against);
        return new Judgement(danger, support >= needed && enough, support, needed, against, contrary);
    }

    /** 1 if the sure looks contradict the danger and agree with the leader, net; −1 if they do the reverse; else 0. */
    private int net(int danger, int leader, Looked looked) {
        int c = looked.character();
        if (looked.rough() || !evidence.isCompared(danger, leader, c)) {
            return 0;
        }
        int notTheDanger = 0;
        int notTheLeader = 0;
        int either = 0;
        boolean usable = evidence.isUsable(danger, leader, c);
        for (int l = 0; l < looked.looks().size() && l < Looked.MOST; l++) {
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

    private double support(int danger, List<Looked> looked) {
        double[] weights = likeness(danger);
        double support = 0;
        for (int j = 0; j < weights.length; j++) {
            if (weights[j] > 0) {
                support += weights[j] * ratio(danger, j, looked);
            }
        }
        return support;
    }

    /** w_j of each row; 0 for the rows of the danger's own name. */
    private double[] likeness(int danger) {
        double[] known = likeness.get(danger);
        if (known != null) {
            return known;
        }
        double[] weights = new double[matrix.rowCount()];
        double total = 0;
        for (int j = 0; j < weights.length; j++) {
            if (!matrix.sharesName(danger, j)) {
                int differences = 0;
                for (int c = 0; c < matrix.characterCount() && differences < MOST_DIFFERENCES; c++) {
                    boolean differ = evidence.isUsable(danger, j, c) && evidence.isDisjoint(danger, j, c);
                    differences += differ ? 1 : 0;
                }
                weights[j] = PortableMath.exp2(-differences);
                total += weights[j];
            }
        }
        for (int j = 0; j < weights.length; j++) {
            weights[j] = total > 0 ? weights[j] / total : 0;
        }
        likeness.put(danger, weights);
        return weights;
    }

    /** Λ_j, part by part. */
    private double ratio(int danger, int j, List<Looked> looked) {
        Map<Integer, double[]> parts = new LinkedHashMap<>();
        for (int k = 0; k < looked.size(); k++) {
            Looked one = looked.get(k);
            int c = one.character();
            if (!evidence.isCompared(danger, j, c)) {
                continue;
            }
            double[] product = parts.get(outermost(matrix.character(c)));
            if (product == null) {
                product = new double[] {1, 1, 1};
                parts.put(outermost(matrix.character(c)), product);
            }
            multiply(product, danger, j, one);
        }
        double ratio = 1;
        for (double[] part : parts.values()) {
            double own = (1 - PART_MISLEADS) * part[0] + PART_MISLEADS * part[2];
            double its = (1 - PART_MISLEADS) * part[1] + PART_MISLEADS * part[2];
            ratio *= its > 0 ? own / its : 1;
        }
        return ratio;
    }

    private static int outermost(MatrixCharacter character) {
        List<Integer> around = character.around();
        return around.isEmpty() ? character.organ() : around.get(around.size() - 1);
    }

    /** Multiplies F_j, F_h and b of a character in. */
    private void multiply(double[] product, int danger, int j, Looked looked) {
        int c = looked.character();
        double doubled = doubled(c, stated(danger, c));
        double b = background(c, doubled, looked);
        double h = factor(danger, c, doubled, b, looked);
        double own = factor(j, c, evidence.isDisjoint(danger, j, c) ? stated(j, c) : doubled, b, looked);
        boolean mayCount = !looked.rough() && evidence.isUsable(danger, j, c) && isPresence(looked);
        product[0] *= mayCount || own < h ? own : h;
        product[1] *= h;
        product[2] *= b;
    }

    /** Whether every look is sure enough, and of something that is there. */
    private boolean isPresence(Looked looked) {
        for (int l = 0; l < looked.looks().size() && l < Looked.MOST; l++) {
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

    private double misreading(Look look, double rate) {
        double of = look.certainty() == Certainty.SURE ? rate : 2 * rate;
        return of < MOST_MISREADING ? of : MOST_MISREADING;
    }

    private double factor(int row, int c, double rate, double b, Looked looked) {
        double[] shares = distributions.shares(row, c);
        double sum = 0;
        for (int s = 0; s < shares.length; s++) {
            if (shares[s] > 0) {
                double product = shares[s];
                for (int l = 0; l < looked.looks().size() && l < Looked.MOST; l++) {
                    Look look = looked.looks().get(l);
                    product *= distributions.recorded(row, c, s, look.observation(), misreading(look, rate));
                }
                sum += product;
            }
        }
        return (1 - BLUNDER) * sum + BLUNDER * b;
    }

    private double background(int c, double rate, Looked looked) {
        double[] study = distributions.ofStudy(c);
        double sum = 0;
        for (int s = 0; s < study.length; s++) {
            double product = (1 - EVEN_SHARE) * study[s] + EVEN_SHARE / study.length;
            for (int l = 0; l < looked.looks().size() && l < Looked.MOST; l++) {
                Look look = looked.looks().get(l);
                product *= distributions.recorded(-1, c, s, look.observation(), misreading(look, rate));
            }
            sum += product;
        }
        return sum;
    }

    /**
     * Log₂ of what a pair can come to at most: every one of some characters seen as {@code other} shows it, surely and as
     * often as counts.
     */
    public double reach(int danger, int other, List<Integer> characters) {
        List<Looked> looked = new ArrayList<>();
        for (int k = 0; k < characters.size(); k++) {
            List<Look> looks = new ArrayList<>();
            for (int l = 0; l < Looked.MOST; l++) {
                looks.add(new Look(distributions.typical(other, characters.get(k)), Certainty.SURE));
            }
            looked.add(new Looked(characters.get(k), looks, false));
        }
        double ratio = likeness(danger)[other] * ratio(danger, other, looked);
        return ratio > 0 ? PortableMath.log2(ratio) : Double.NEGATIVE_INFINITY;
    }

    /**
     * The looks, in order, that would rule a danger out if each agreed with {@code other}: a part not seen yet first, then what
     * is misread least, then another look.
     *
     * @param characters those that may be looked at
     * @return the characters to look at, one entry a look; empty if they do not suffice
     */
    public List<Integer> looksNeeded(int danger, int other, List<Looked> already, List<Integer> characters) {
        List<Looked> looked = new ArrayList<>(already);
        List<Integer> steps = new ArrayList<>();
        while (steps.size() < MOST_STEPS) {
            if (judge(danger, other, looked).ruledOut()) {
                return steps;
            }
            int next = next(danger, looked, characters);
            if (next < 0) {
                return new ArrayList<>();
            }
            add(looked, next, new Look(distributions.typical(other, next), Certainty.SURE));
            steps.add(next);
        }
        return new ArrayList<>();
    }

    private int next(int danger, List<Looked> looked, List<Integer> characters) {
        int best = -1;
        double least = Double.POSITIVE_INFINITY;
        for (int k = 0; k < characters.size(); k++) {
            int c = characters.get(k);
            int times = timesLooked(looked, c);
            double cost = (isPartSeen(looked, c) ? 1 : 0) + stated(danger, c) + 2.0 * times;
            if (times < Looked.MOST && cost < least) {
                least = cost;
                best = c;
            }
        }
        return best;
    }

    private static int timesLooked(List<Looked> looked, int character) {
        for (int k = 0; k < looked.size(); k++) {
            if (looked.get(k).character() == character) {
                return looked.get(k).looks().size();
            }
        }
        return 0;
    }

    private boolean isPartSeen(List<Looked> looked, int character) {
        for (int k = 0; k < looked.size(); k++) {
            MatrixCharacter other = matrix.character(looked.get(k).character());
            if (!other.isApartFrom(matrix.character(character))) {
                return true;
            }
        }
        return false;
    }

    private static void add(List<Looked> looked, int character, Look look) {
        for (int k = 0; k < looked.size(); k++) {
            if (looked.get(k).character() == character) {
                List<Look> more = new ArrayList<>(looked.get(k).looks());
                more.add(look);
                looked.set(k, new Looked(character, more, looked.get(k).rough()));
                return;
            }
        }
        List<Look> first = new ArrayList<>();
        first.add(look);
        looked.add(new Looked(character, first, false));
    }
}
