package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.key.KeyResult.Price;
import org.polyclave.core.key.KeyResult.PriceKind;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;

/** What a split costs under an objective, per specimen that passes it. */
final class SplitCost {
    /** A number is misread across a limit half as often as a state is taken for another. */
    private static final double NUMERIC_SHARE = 0.5;
    /** Prices of what readers find awkward, in couplets. */
    private static final double ASKED_AGAIN = 0.3;

    private static final double OUT_OF_ORDER = 0.5;
    private static final double STATE_TOO_MANY = 0.1;
    /** What none of those who use the key can see, out of season or because it is not there. */
    private static final double NOT_TO_BE_SEEN = 0.5;
    /** Each lead after the second must be read, too. */
    private static final double LEAD_TOO_MANY = 0.15;

    private static final int STATES_READ_AT_ONCE = 2;
    /** A couplet that a dangerous specimen passes while something harmless is in play, where hazards come first. */
    private static final double NOT_YET_SEPARATED = 1;

    private final KeyProblem problem;
    private final KeyObjective objective;
    private final int months;
    private final boolean hazardsFirst;
    private final List<Observer> observers;
    /** Share of all specimens that are dangerous. */
    private final double dangerous;

    SplitCost(KeyProblem problem, KeyObjective objective, KeyOptions options) {
        this.problem = problem;
        this.objective = objective;
        months = options.months();
        hazardsFirst = options.hazardsFirst();
        observers = options.readers().map(List::of).orElseGet(objective::observers);
        double sum = 0;
        double all = 0;
        for (int specimens = 0; specimens < problem.classCount; specimens++) {
            sum += problem.isDangerous(specimens) ? problem.mass[specimens] : 0;
            all += problem.mass[specimens];
        }
        dangerous = sum / all;
    }

    KeyObjective objective() {
        return objective;
    }

    /** Whose wrong names count, each alike. */
    List<Observer> observers() {
        return observers;
    }

    /** What asking costs before anything is misread. */
    double asking(Position position, Split split) {
        boolean goesOn = position.goesOn(split);
        if (objective.countsStepsOnly()) {
            return goesOn ? 0 : 1;
        }
        double cost = (goesOn ? LEAD_TOO_MANY : objective.effort(problem.matrix.character(split.character())))
                + objective.groupWeight() * groupsParted(position, split)
                + (hazardsFirst && dangerous > 0 && !goesOn
                        ? NOT_YET_SEPARATED * position.dangerAmongHarmless() / dangerous
                        : 0);
        for (Price price : prices(position, split)) {
            cost += price.couplets();
        }
        return cost;
    }

    /** What readers find awkward about a split; nothing where only steps count. */
    List<Price> prices(Position position, Split split) {
        List<Price> prices = new ArrayList<>(1);
        if (objective.countsStepsOnly()) {
            return prices;
        }
        MatrixCharacter character = problem.matrix.character(split.character());
        boolean goesOn = position.goesOn(split);
        if (position.isAsked(split.character()) && !goesOn) {
            prices.add(new Price(PriceKind.ASKED_AGAIN, ASKED_AGAIN));
        }
        if (!split.isNumeric()) {
            int more = Math.max(Integer.bitCount(split.first()), Integer.bitCount(split.second()));
            int fewer = Math.min(Integer.bitCount(split.first()), Integer.bitCount(split.second()));
            boolean inOrder = StateSplits.isInOrder(split);
            if (character.type().isGraded() && !inOrder) {
                prices.add(new Price(PriceKind.OUT_OF_ORDER, OUT_OF_ORDER));
            } else if (!character.type().isGraded() && fewer > 1 && more > STATES_READ_AT_ONCE) {
                // One state against all others is read at once, as is a part of a series.
                prices.add(new Price(PriceKind.MANY_STATES, STATE_TOO_MANY * (more + fewer - 2 * STATES_READ_AT_ONCE)));
            }
        }
        double seen = seen(split.character());
        if (seen < 1 && !goesOn) {
            prices.add(new Price(PriceKind.OUT_OF_SEASON, NOT_TO_BE_SEEN * (1 - seen)));
        }
        if (character.seenOn() < 1 && !goesOn) {
            prices.add(new Price(PriceKind.SELDOM_THERE, NOT_TO_BE_SEEN * (1 - character.seenOn())));
        }
        return prices;
    }

    /** Share of the months of use in which a character can be seen. */
    private double seen(int character) {
        return (double) Integer.bitCount(problem.monthsSeen[character] & months) / Integer.bitCount(months);
    }

    /**
     * With a guess of what misreading costs later, for choosing among splits: readers who misread arrive, at worst, at any
     * row of the other lead.
     */
    double rate(Position position, Split split) {
        double rate = asking(position, split);
        if (objective.errorWeight() == 0 && objective.hazardWeight() == 0) {
            return rate;
        }
        Across across = new Across();
        double[] misread = misreading(position, split);
        double[] worst = position.worstLosses();
        for (int k = 0; k < position.size(); k++) {
            boolean first = position.enters(k, split, true);
            boolean second = position.enters(k, split, false);
            across.add(position.isDangerous(k), first, second, position.mass[k] * misread[k], worst[k]);
        }
        double total = Math.max(position.total, 1e-300);
        return rate
                + (objective.errorWeight() * across.error + objective.hazardWeight() * across.overTheBorder()) / total;
    }

    /** By class, the share of specimens that readers take down the lead that is not theirs. */
    private double[] misreading(Position position, Split split) {
        MatrixCharacter character = problem.matrix.character(split.character());
        double toSecond = acrossShare(split, true);
        double toFirst = acrossShare(split, false);
        double[] misread = new double[position.size()];
        for (int k = 0; k < misread.length; k++) {
            boolean first = position.enters(k, split, true);
            int row = problem.rowOf[position.classes[k]];
            misread[k] = misreading(character, row) * (first ? toSecond : toFirst);
            if (split.isNumeric() && first != position.enters(k, split, false)) {
                KeyProblem.Pattern pattern = position.pattern(split.character(), k);
                misread[k] = Math.max(misread[k], DoubtfulLimit.beyond(pattern, split.cut(), !first));
            }
        }
        return misread;
    }

    /** How often a character is misread on specimens of a row, as a guess: by those who are trained, if they count. */
    private double misreading(MatrixCharacter character, int row) {
        return character.misreading().rate(observers.get(0), row);
    }

    /** Of the specimens that come to a split, the share that readers take down a lead that is not theirs. */
    double misread(Position position, Split split) {
        double[] misread = misreading(position, split);
        double sum = 0;
        for (int k = 0; k < misread.length; k++) {
            boolean both = position.enters(k, split, true) && position.enters(k, split, false);
            // Of a row that stands in both leads no individual goes astray.
            sum += both ? 0 : position.mass[k] * misread[k];
        }
        return sum / Math.max(position.total, 1e-300);
    }

    /** Mass of specimens that are misread across a split. */
    private static final class Across {
        private double error;
        private double dangerousOfFirst;
        private double dangerousOfSecond;
        private double harmlessOfFirst;
        private double harmlessOfSecond;
        private boolean dangerInFirst;
        private boolean dangerInSecond;
        private boolean harmlessInFirst;
        private boolean harmlessInSecond;

        void add(boolean dangerous, boolean first, boolean second, double misread, double loss) {
            error += misread * loss;
            if (dangerous) {
                dangerInFirst |= first;
                dangerInSecond |= second;
                dangerousOfFirst += first ? misread : 0;
                dangerousOfSecond += first ? 0 : misread;
            } else {
                harmlessInFirst |= first;
                harmlessInSecond |= second;
                harmlessOfFirst += first ? misread : 0;
                harmlessOfSecond += first ? 0 : misread;
            }
        }

        /** What is misread to a lead that holds something of the other kind. */
        double overTheBorder() {
            return (harmlessInSecond ? dangerousOfFirst : 0)
                    + (harmlessInFirst ? dangerousOfSecond : 0)
                    + (dangerInSecond ? harmlessOfFirst : 0)
                    + (dangerInFirst ? harmlessOfSecond : 0);
        }
    }

    /** Of the ways to misread a state, the share that falls on the other lead. */
    private static double acrossShare(Split split, boolean first) {
        if (split.isNumeric()) {
            return NUMERIC_SHARE;
        }
        int others = Integer.bitCount(split.first() | split.second()) - 1;
        return (double) Integer.bitCount(split.mask(!first)) / others;
    }

    /** How many named groups have rows in the first lead only and others in the second only. */
    private int groupsParted(Position position, Split split) {
        if (objective.groupWeight() == 0) {
            return 0;
        }
        byte[] sides = new byte[problem.kins];
        int parted = 0;
        for (int k = 0; k < position.size(); k++) {
            boolean first = position.enters(k, split, true);
            boolean second = position.enters(k, split, false);
            if (first != second) {
                int kin = problem.kinOf[position.classes[k]];
                byte side = (byte) (first ? 1 : 2);
                parted += (sides[kin] | side) == 3 && sides[kin] != 3 ? 1 : 0;
                sides[kin] |= side;
            }
        }
        return parted;
    }
}
