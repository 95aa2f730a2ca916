package org.polyclave.core.key;

import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.matrix.RangeDistribution;
import org.polyclave.core.matrix.RecordedStates;

/**
 * What an observer reads of specimens of each class. States are misread as {@link RecordedStates} says; of numbers that are
 * misread any that the study knows may be read. What is unknown, or does not exist on the specimen, is read as in any other.
 */
final class Readings {
    private final KeyProblem problem;
    private final Observer observer;
    private final Distributions distributions;
    /** By character, then by pattern, or by class where rows have rates of their own; null until asked for. */
    private final double[][][] states;

    /** @param distributions of the problem's matrix, with their tails: new individuals may lie outside what was seen */
    Readings(KeyProblem problem, Observer observer, Distributions distributions) {
        this.problem = problem;
        this.observer = observer;
        this.distributions = distributions;
        states = new double[problem.matrix.characterCount()][][];
    }

    /** Of the readings of a class that are within {@code low} and {@code high} of a position, the share that a lead accepts. */
    double share(Position position, Split split, boolean first, int specimens) {
        int c = split.character();
        if (split.isNumeric()) {
            double all = within(c, specimens, position.low[c], position.high[c]);
            double part = first
                    ? within(c, specimens, position.low[c], split.cut())
                    : within(c, specimens, split.cut(), position.high[c]);
            return all > 0 ? part / all : 0;
        }
        double[] shares = states(c, specimens);
        // Whoever reads what is not there picks one of the two leads.
        boolean any = problem.pattern(c, specimens).inapplicable();
        double all = sum(shares, any ? split.first() | split.second() : position.masks[c]);
        return all > 0 ? sum(shares, split.mask(first)) / all : 0;
    }

    private static double sum(double[] shares, int mask) {
        double sum = 0;
        for (int bits = mask; bits != 0; bits &= bits - 1) {
            sum += shares[Integer.numberOfTrailingZeros(bits)];
        }
        return sum;
    }

    private double within(int c, int specimens, double low, double high) {
        double any = distributions.range(c, Cell.UNKNOWN).share(low, high);
        if (!problem.pattern(c, specimens).known()) {
            return any;
        }
        int row = problem.rowOf[specimens];
        RangeDistribution own = distributions.range(c, problem.matrix.cell(row, c));
        double rate = problem.matrix.character(c).misreading().rate(observer, row);
        return (1 - rate) * own.share(low, high) + rate * any;
    }

    private double[] states(int c, int specimens) {
        boolean alike = problem.matrix.character(c).misreading().isAlikeInAllRows();
        if (states[c] == null) {
            states[c] = new double[alike ? problem.patterns[c].length : problem.classCount][];
        }
        int at = alike ? problem.patternOf[c][specimens] : specimens;
        if (states[c][at] == null) {
            states[c][at] = read(c, specimens);
        }
        return states[c][at];
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
