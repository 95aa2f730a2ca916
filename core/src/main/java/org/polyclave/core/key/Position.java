package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.key.KeyProblem.Pattern;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.MisidentificationCosts;

/**
 * A place in a key: what the path has not excluded, and which classes of specimens are still in play with what mass.
 *
 * <p>Invariant: {@code classes} is ascending and holds exactly the classes whose readable support meets {@code masks} and
 * {@code (low, high]} on every character; {@code mass[k]} is the weight of {@code classes[k]} times the shares it has left.
 */
final class Position {
    private static final int[][] NOT_MADE = {};
    private static final double[] NO_LOSSES = {};
    private static final int FEW = 12;
    private static final int NONE = -1;
    private static final double HALF = 0.5;

    final KeyProblem problem;
    final int[] masks;
    final double[] low;
    final double[] high;
    final int[] classes;
    final double[] mass;
    final double total;
    /** Whether the way here asked for something that some specimens do not have: then masses depend on the way. */
    final boolean guessed;
    /** The character that the last couplet asks, where this lead of it may still be divided; -1 where it may not. */
    final int open;
    /** How many leads that couplet has. */
    final int leads;
    /** Of each name with several classes in play, their places in {@link #classes}; made when first asked for. */
    private int[][] shared = NOT_MADE;

    private double[] worstLosses = NO_LOSSES;

    private Position(
            KeyProblem problem,
            int[] masks,
            double[] low,
            double[] high,
            int[] classes,
            double[] mass,
            boolean guessed,
            int open,
            int leads) {
        this.problem = problem;
        this.guessed = guessed;
        this.open = open;
        this.leads = leads;
        this.masks = masks;
        this.low = low;
        this.high = high;
        this.classes = classes;
        this.mass = mass;
        double sum = 0;
        for (double m : mass) {
            sum += m;
        }
        total = sum;
    }

    static Position start(KeyProblem problem) {
        int n = problem.matrix.characterCount();
        int[] masks = new int[n];
        double[] low = new double[n];
        double[] high = new double[n];
        for (int c = 0; c < n; c++) {
            masks[c] = problem.allStates[c];
        }
        Arrays.fill(low, Double.NEGATIVE_INFINITY);
        Arrays.fill(high, Double.POSITIVE_INFINITY);
        int[] classes = new int[problem.classCount];
        for (int i = 0; i < classes.length; i++) {
            classes[i] = i;
        }
        return new Position(problem, masks, low, high, classes, problem.mass.clone(), false, NONE, 0);
    }

    /** The places of classes that share a name, name by name; a name with one class in play is not among them. */
    int[][] sharedNames() {
        if (shared == NOT_MADE) {
            shared = problem.namesShared ? groupedByName() : new int[0][];
        }
        return shared;
    }

    private int[][] groupedByName() {
        Map<Integer, List<Integer>> byName = new LinkedHashMap<>();
        for (int k = 0; k < classes.length; k++) {
            byName.computeIfAbsent(problem.nameOf[classes[k]], n -> new ArrayList<>())
                    .add(k);
        }
        return byName.values().stream()
                .filter(places -> places.size() > 1)
                .map(places -> places.stream().mapToInt(k -> k).toArray())
                .toArray(int[][]::new);
    }

    /**
     * What the answer of a split leaves uncertain beyond what it does for classes: an answer that parts the sexes of a name
     * tells nothing about the name. Added to the uncertainty left within classes, not yet divided by the mass.
     */
    double uncertaintyWithinNames(Split split) {
        double bits = 0;
        boolean even = total <= 0;
        for (int[] places : sharedNames()) {
            double all = 0;
            double inFirst = 0;
            double within = 0;
            for (int k : places) {
                double m = even ? 1 : mass[k];
                double share = shareOf(k, split, even);
                all += m;
                inFirst += m * share;
                within += m * SplitSurveyor.entropy(share);
            }
            bits += all > 0 ? all * SplitSurveyor.entropy(inFirst / all) - within : 0;
        }
        return bits;
    }

    private double shareOf(int k, Split split, boolean even) {
        boolean first = enters(k, split, true);
        if (!first || !enters(k, split, false)) {
            return first ? 1 : 0;
        }
        return even ? 0.5 : share(k, split, true);
    }

    int size() {
        return classes.length;
    }

    /** No answer of two gives more bits about the classes than this; exact for few classes, where it takes 2^n time. */
    double mostGain() {
        if (classes.length > FEW || total <= 0) {
            return 1;
        }
        double nearest = 1;
        for (int some = 1; some < 1 << (classes.length - 1); some++) {
            double sum = 0;
            for (int bits = some; bits != 0; bits &= bits - 1) {
                sum += mass[Integer.numberOfTrailingZeros(bits)];
            }
            nearest = Math.min(nearest, Math.abs(sum / total - HALF));
        }
        return SplitSurveyor.entropy(HALF - nearest);
    }

    /** Whether the way here has asked for a character. */
    boolean isAsked(int character) {
        return masks[character] != problem.allStates[character]
                || low[character] != Double.NEGATIVE_INFINITY
                || high[character] != Double.POSITIVE_INFINITY;
    }

    /** By place in {@link #classes}: how bad it is to take its specimens for the worst of the others in play. */
    double[] worstLosses() {
        if (worstLosses == NO_LOSSES) {
            double[] made = new double[classes.length];
            MisidentificationCosts losses = problem.matrix.losses();
            for (int k = 0; k < made.length; k++) {
                int row = problem.rowOf[classes[k]];
                made[k] = 1;
                for (int other : losses.isSet(row) ? classes : new int[0]) {
                    made[k] = Math.max(made[k], losses.of(row, problem.rowOf[other]));
                }
            }
            worstLosses = made;
        }
        return worstLosses;
    }

    boolean isDangerous(int k) {
        return problem.isDangerous(classes[k]);
    }

    /** Whether some class in play must not be handled so. */
    boolean mayHarm(Handling handling) {
        for (int k = 0; handling != Handling.NONE && k < classes.length; k++) {
            Harm harm = problem.matrix.row(problem.rowOf[classes[k]]).harm();
            if (handling.advice(harm) == Handling.Advice.NEVER) {
                return true;
            }
        }
        return false;
    }

    /** Share of the specimens here that are dangerous, if others are not. */
    double dangerAmongHarmless() {
        double dangerous = 0;
        for (int k = 0; k < classes.length; k++) {
            dangerous += isDangerous(k) ? mass[k] : 0;
        }
        return total <= 0 || holdsDangersOnly() ? 0 : dangerous / total;
    }

    boolean holdsDangersOnly() {
        for (int k = 0; k < classes.length; k++) {
            if (!isDangerous(k)) {
                return false;
            }
        }
        return true;
    }

    boolean holdsDangerous() {
        for (int k = 0; k < classes.length; k++) {
            if (isDangerous(k)) {
                return true;
            }
        }
        return false;
    }

    Pattern pattern(int character, int k) {
        return problem.pattern(character, classes[k]);
    }

    /** Whether class {@code k} of this position can show something that lead {@code first} of the split accepts. */
    boolean enters(int k, Split split, boolean first) {
        Pattern p = pattern(split.character(), k);
        if (split.isNumeric()) {
            return first
                    ? p.min() <= Math.min(split.cut(), high[split.character()])
                    : p.max() > Math.max(split.cut(), low[split.character()]);
        }
        return (p.mask() & split.mask(first)) != 0;
    }

    /** Share of class {@code k}'s present mass that goes down lead {@code first}. */
    double share(int k, Split split, boolean first) {
        Pattern p = pattern(split.character(), k);
        int c = split.character();
        double all;
        double part;
        if (split.isNumeric()) {
            all = p.range().share(low[c], high[c]);
            part = first ? p.range().share(low[c], split.cut()) : p.range().share(split.cut(), high[c]);
        } else {
            // An inapplicable character is read at random: its shares are those of the two leads.
            all = p.share(split.first() | split.second());
            part = p.share(split.mask(first));
        }
        return all > 0 ? Math.min(1, part / all) : 0;
    }

    Position follow(Split split, boolean first) {
        int c = split.character();
        int[] kept = new int[classes.length];
        double[] keptMass = new double[classes.length];
        int n = 0;
        boolean guess = guessed;
        for (int k = 0; k < classes.length; k++) {
            guess |= pattern(c, k).inapplicable();
            if (enters(k, split, first)) {
                kept[n] = classes[k];
                keptMass[n++] = mass[k] * share(k, split, first);
            }
        }
        int[] newMasks = masks;
        double[] newLow = low;
        double[] newHigh = high;
        if (!split.isNumeric()) {
            newMasks = masks.clone();
            newMasks[c] = split.mask(first);
        } else if (first) {
            newHigh = high.clone();
            newHigh[c] = split.cut();
        } else {
            newLow = low.clone();
            newLow[c] = split.cut();
        }
        boolean more = mayGoOn(split, first);
        return new Position(
                problem,
                newMasks,
                newLow,
                newHigh,
                Arrays.copyOf(kept, n),
                Arrays.copyOf(keptMass, n),
                guess,
                more ? c : NONE,
                more ? leadsWith(split) : 0);
    }

    /** Whether a split divides the lead that led here further, in the same couplet. */
    boolean goesOn(Split split) {
        return split.character() == open;
    }

    /** How many leads the couplet has after a split. */
    private int leadsWith(Split split) {
        return goesOn(split) ? leads + 1 : KeyOptions.TWO_LEADS;
    }

    /**
     * Whether a lead of a split may be divided further in its couplet. Only one of the two may: the upper one of a number, of states
     * the one with more; each way of dividing into several leads is a chain of such splits.
     */
    boolean mayGoOn(Split split, boolean first) {
        return leadsWith(split) < problem.mostLeads && split.isRest(first);
    }

    /** How many leads more the couplet that led here may have. */
    int leadsLeft() {
        return open == NONE ? 0 : problem.mostLeads - leads;
    }
}
