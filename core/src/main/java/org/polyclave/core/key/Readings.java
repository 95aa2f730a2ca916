package org.polyclave.core.key;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.matrix.RangeDistribution;
import org.polyclave.core.matrix.RecordedStates;

/**
 * What an observer reads of specimens of each class. States are misread as {@link RecordedStates} says. A number is read to
 * within its give or take, so that a limit close to a range is often misjudged; and of numbers that are misread altogether
 * any that the study knows may be read. What is unknown, or does not exist on the specimen, is read as in any other.
 *
 * <p>A reading is kept, so the share of readers that a place of a key admits is a product over the characters asked.
 */
final class Readings {
    /** Into so many equal parts the give or take of a number is divided. */
    private static final int PARTS = 8;

    private final KeyProblem problem;
    private final Observer observer;
    private final Distributions distributions;
    private final Map<Admitted, double[]> admitted = new HashMap<>();

    /** The readings of a character that a place admits. */
    private record Admitted(int character, int mask, double low, double high) {}

    /** @param distributions of the problem's matrix, with their tails: new individuals may lie outside what was seen */
    Readings(KeyProblem problem, Observer observer, Distributions distributions) {
        this.problem = problem;
        this.observer = observer;
        this.distributions = distributions;
    }

    /** Of all readers, by the class of their specimen, the share that arrives at a place. O(classes · characters asked). */
    double[] arriving(Position place) {
        double[] share = problem.mass.clone();
        for (int c = 0; c < place.masks.length; c++) {
            if (place.isAsked(c)) {
                double[] factor = admitted.computeIfAbsent(
                        new Admitted(c, place.masks[c], place.low[c], place.high[c]), this::shares);
                for (int i = 0; i < share.length; i++) {
                    share[i] *= factor[i];
                }
            }
        }
        return share;
    }

    private double[] shares(Admitted of) {
        double[] shares = new double[problem.classCount];
        // Classes whose cells are alike, in characters that are misread alike in all rows, are read alike.
        boolean alike = problem.matrix.character(of.character()).misreading().isAlikeInAllRows();
        double[] ofPattern = new double[problem.patterns[of.character()].length];
        Arrays.fill(ofPattern, -1);
        for (int i = 0; i < shares.length; i++) {
            int pattern = problem.patternOf[of.character()][i];
            if (!alike || ofPattern[pattern] < 0) {
                ofPattern[pattern] = share(of, i);
            }
            shares[i] = ofPattern[pattern];
        }
        return shares;
    }

    private double share(Admitted of, int specimens) {
        int c = of.character();
        if (problem.matrix.character(c).type().isNumeric()) {
            return within(of, specimens);
        }
        double[] read = read(c, specimens);
        double sum = 0;
        double all = 0;
        for (int s = 0; s < read.length; s++) {
            all += read[s];
            sum += (of.mask() & (1 << s)) != 0 ? read[s] : 0;
        }
        return all > 0 ? sum / all : 0;
    }

    private double within(Admitted of, int specimens) {
        int c = of.character();
        double any = distributions.range(c, Cell.UNKNOWN).share(of.low(), of.high());
        if (!problem.pattern(c, specimens).known()) {
            return any;
        }
        int row = problem.rowOf[specimens];
        RangeDistribution own = distributions.range(c, problem.matrix.cell(row, c));
        double rate = problem.matrix.character(c).misreading().rate(observer, row);
        return (1 - rate) * (upTo(c, own, of.high()) - upTo(c, own, of.low())) + rate * any;
    }

    /** Share of readings up to a limit, where each is off by as much as its give or take, evenly. */
    private double upTo(int c, RangeDistribution own, double limit) {
        MatrixCharacter character = problem.matrix.character(c);
        if (Double.isInfinite(limit) || character.type() == CharacterType.COUNT) {
            return own.share(Double.NEGATIVE_INFINITY, limit);
        }
        double sum = 0;
        for (int part = 0; part < PARTS; part++) {
            double off = (2 * part + 1.0) / PARTS - 1;
            sum += own.share(Double.NEGATIVE_INFINITY, character.actual(limit, off));
        }
        return sum / PARTS;
    }

    private double[] read(int c, int specimens) {
        KeyProblem.Pattern pattern = problem.pattern(c, specimens);
        double all = pattern.share(pattern.mask());
        if (pattern.inapplicable() || all <= 0) {
            return pattern.shares();
        }
        MatrixCharacter character = problem.matrix.character(c);
        double[] shares = new double[character.stateCount()];
        int support = 0;
        for (int s = 0; s < shares.length; s++) {
            boolean shown = (pattern.mask() & (1 << s)) != 0 && pattern.shares()[s] > 0;
            shares[s] = shown ? pattern.shares()[s] / all : 0;
            support |= shown ? 1 << s : 0;
        }
        int row = problem.rowOf[specimens];
        // What a row is taken for is read of all its specimens, also where they are divided by what they show.
        int mistaken =
                problem.matrix.cell(row, c) instanceof Cell.Categorical cell ? cell.readable() & ~cell.support() : 0;
        double rate = character.misreading().rate(observer, row);
        return RecordedStates.of(character, new Cell.Categorical(support, support | mistaken, shares), rate);
    }
}
