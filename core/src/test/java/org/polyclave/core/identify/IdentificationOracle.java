package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.IntToDoubleFunction;
import java.util.stream.Collectors;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;

/**
 * Any-order identification from its definitions, written out without any of the product's own distributions: what a reader
 * records is drawn state by state, a number from flat pieces, and information is H(record) − H(record | row).
 */
final class IdentificationOracle {
    private static final double NONE = Double.NaN;

    private final Matrix matrix;
    private final List<Answer> given = new ArrayList<>();
    private final List<Boolean> implied = new ArrayList<>();

    IdentificationOracle(Matrix matrix, List<Answer> answers) {
        this.matrix = matrix;
        TreeMap<Integer, Answer> last = new TreeMap<>();
        answers.forEach(a -> last.put(a.character(), a));
        for (int c = 0; c < matrix.characterCount(); c++) {
            int admitted = matrix.character(c).allStates();
            for (Answer answer : answers) {
                for (ControllingCondition when :
                        matrix.character(answer.character()).appliesWhen()) {
                    admitted &= when.character() == c ? when.states() : -1;
                }
            }
            if (last.containsKey(c)) {
                given.add(last.get(c));
                implied.add(false);
            } else if (admitted != 0 && admitted != matrix.character(c).allStates()) {
                given.add(new Answer(c, new Observation.Seen(admitted), Certainty.SURE));
                implied.add(true);
            }
        }
    }

    List<Integer> rows() {
        return IntStream.range(0, matrix.rowCount()).boxed().toList();
    }

    private List<Integer> scored(int c) {
        return rows().stream()
                .filter(i -> matrix.cell(i, c) instanceof Cell.Categorical || matrix.cell(i, c) instanceof Cell.Numeric)
                .toList();
    }

    /** Whether it exists on some specimen of the row at least. */
    boolean exists(int row, int c) {
        return !(matrix.cell(row, c) instanceof Cell.NotApplicable)
                && matrix.character(c).appliesWhen().stream()
                        .allMatch(w -> exists(row, w.character())
                                && (!(matrix.cell(row, w.character()) instanceof Cell.Categorical shown)
                                        || (shown.readable() & w.states()) != 0));
    }

    private double recorded(int row, int c, int truth, int recorded, double misreading) {
        Cell.Categorical cell = (Cell.Categorical) matrix.cell(row, c);
        MatrixCharacter character = matrix.character(c);
        List<Integer> taken = states(cell.readable() & ~cell.support() & ~(1 << truth));
        List<Integer> alike = new ArrayList<>(states(character.confusable(truth)));
        alike.removeAll(states(cell.readable() & ~cell.support()));
        List<Integer> others = new ArrayList<>(states(character.allStates()));
        others.removeAll(taken);
        others.removeAll(alike);
        others.remove((Integer) truth);
        double toTaken = taken.isEmpty() ? 0 : 0.15;
        double wrong = alike.isEmpty() && others.isEmpty() ? 0 : misreading * (1 - toTaken);
        if (recorded == truth) {
            return 1 - toTaken - wrong;
        }
        if (taken.contains(recorded)) {
            return toTaken / taken.size();
        }
        double alikeShare = others.isEmpty() ? 1 : alike.isEmpty() ? 0 : 0.7;
        return alike.contains(recorded) ? wrong * alikeShare / alike.size() : wrong * (1 - alikeShare) / others.size();
    }

    private static List<Integer> states(int mask) {
        return IntStream.range(0, 32).filter(s -> (mask >>> s & 1) == 1).boxed().toList();
    }

    /** Share of a range in [low, high], or in (low, high] where {@code open}. */
    private double mass(int c, Cell.Numeric range, double low, double high, boolean open) {
        double half = matrix.character(c).type() == CharacterType.COUNT ? 0.5 : 0;
        double left = range.low() - range.min();
        double right = range.max() - range.high();
        double tails = left + right;
        double from = range.low() - half;
        double to = range.high() + half;
        if (from == to && tails == 0) {
            from -= matrix.character(c).uncertainty();
            to += matrix.character(c).uncertainty();
        }
        double core = tails > 0 ? 0.9 : 1;
        double share = core * within(from, to, low, high, open);
        share += left > 0 ? 0.1 * left / tails * within(range.min() - half, range.low() - half, low, high, open) : 0;
        return share
                + (right > 0
                        ? 0.1 * right / tails * within(range.high() + half, range.max() + half, low, high, open)
                        : 0);
    }

    private static double within(double from, double to, double low, double high, boolean open) {
        if (from == to) {
            return (open ? from > low : from >= low) && from <= high ? 1 : 0;
        }
        return Math.max(0, Math.min(to, high) - Math.max(from, low)) / (to - from);
    }

    private double misreading(int row, int c, Certainty certainty) {
        double added = certainty == Certainty.SURE ? 0 : certainty == Certainty.LIKELY ? 0.10 : 0.25;
        return Math.min(0.6, matrix.character(c).misreading().rate(Observer.TRAINED, row) + added);
    }

    private double likelihood(int row, Answer answer) {
        int c = answer.character();
        List<Look> looks = new ArrayList<>(List.of(new Look(answer.observation(), answer.certainty())));
        looks.addAll(answer.further());
        if (matrix.cell(row, c) instanceof Cell.Numeric range) {
            double[] shares = looks.stream()
                    .sorted(Comparator.comparingDouble(
                            l -> ((Observation.MeasuredObservation) l.observation()).value()))
                    .mapToDouble(l -> {
                        var reading = (Observation.MeasuredObservation) l.observation();
                        double off = reading.uncertainty() * (1 + 4 * misreading(row, c, l.certainty()));
                        return mass(c, range, reading.value() - off, reading.value() + off, false);
                    })
                    .toArray();
            int n = shares.length;
            return (shares[n / 2] + shares[(n - 1) / 2]) / 2;
        }
        Cell.Categorical cell = (Cell.Categorical) matrix.cell(row, c);
        double sum = 0;
        for (int truth = 0; truth < cell.shares().length; truth++) {
            double product = cell.shares()[truth];
            for (Look look : looks) {
                int shown = truth;
                product *= states(((Observation.Seen) look.observation()).states()).stream()
                        .mapToDouble(s -> recorded(row, c, shown, s, misreading(row, c, look.certainty())))
                        .sum();
            }
            sum += product;
        }
        return sum;
    }

    private boolean contradicts(int row, Answer answer) {
        List<Observation> seen = new ArrayList<>(List.of(answer.observation()));
        answer.further().forEach(l -> seen.add(l.observation()));
        long outside = seen.stream()
                .filter(o -> o instanceof Observation.Seen states
                        ? (((Cell.Categorical) matrix.cell(row, answer.character())).readable() & states.states()) == 0
                        : isOutside(
                                (Cell.Numeric) matrix.cell(row, answer.character()),
                                (Observation.MeasuredObservation) o))
                .count();
        return outside > seen.size() - outside;
    }

    private static boolean isOutside(Cell.Numeric range, Observation.MeasuredObservation reading) {
        return reading.value() + reading.uncertainty() < range.min()
                || reading.value() - reading.uncertainty() > range.max();
    }

    /** What records of a character are told apart for weighing a question: states, or eighths of the range of all rows. */
    private List<double[]> records(int c) {
        List<Integer> scored = scored(c);
        List<double[]> byRow = new ArrayList<>();
        if (!matrix.character(c).type().isNumeric()) {
            for (int i : scored) {
                Cell.Categorical cell = (Cell.Categorical) matrix.cell(i, c);
                double rate = misreading(i, c, Certainty.SURE);
                byRow.add(IntStream.range(0, cell.shares().length)
                        .mapToDouble(o -> IntStream.range(0, cell.shares().length)
                                .mapToDouble(s -> cell.shares()[s] * recorded(i, c, s, o, rate))
                                .sum())
                        .toArray());
            }
            return byRow;
        }
        double half = matrix.character(c).type() == CharacterType.COUNT ? 0.5 : 0;
        double low = scored.stream()
                        .mapToDouble(i -> ((Cell.Numeric) matrix.cell(i, c)).min())
                        .min()
                        .orElse(0)
                - half;
        double high = scored.stream()
                        .mapToDouble(i -> ((Cell.Numeric) matrix.cell(i, c)).max())
                        .max()
                        .orElse(0)
                + half;
        for (int i : scored) {
            Cell.Numeric range = (Cell.Numeric) matrix.cell(i, c);
            double[] shares = new double[8];
            for (int b = 0; b < 8; b++) {
                double from = b == 0 ? Double.NEGATIVE_INFINITY : low + b * (high - low) / 8;
                double to = b == 7 ? Double.POSITIVE_INFINITY : low + (b + 1) * (high - low) / 8;
                shares[b] = low == high ? (b == 0 ? 1 : 0) : mass(c, range, from, to, true);
            }
            byRow.add(shares);
        }
        return byRow;
    }

    /** Mutual information of row and record; what is not scored, and what is outside, shows the mean of the scored rows. */
    double information(int c, IntToDoubleFunction shareOf, double outside) {
        List<Integer> scored = scored(c);
        List<double[]> records = records(c);
        int n = records.isEmpty() ? 0 : records.get(0).length;
        double[] mean = new double[n];
        records.forEach(r -> IntStream.range(0, n).forEach(o -> mean[o] += r[o] / records.size()));
        double[] all = new double[n];
        double given = 0;
        for (int i : rows()) {
            int at = scored.indexOf(i);
            double[] own = mean;
            if (at >= 0) {
                own = IntStream.range(0, n)
                        .mapToDouble(o -> 0.98 * records.get(at)[o] + 0.02 * mean[o])
                        .toArray();
            }
            given += shareOf.applyAsDouble(i) * entropy(own);
            for (int o = 0; o < n; o++) {
                all[o] += shareOf.applyAsDouble(i) * own[o];
            }
        }
        given += outside * entropy(mean);
        IntStream.range(0, n).forEach(o -> all[o] += outside * mean[o]);
        return Math.max(0, entropy(all) - given);
    }

    private static double entropy(double[] p) {
        return -DoubleStream.of(p)
                .filter(x -> x > 0)
                .map(x -> x * Math.log(x) / Math.log(2))
                .sum();
    }

    /** An answer counts less the more answers of its group are stronger: 1, 1/4, ... */
    private double weight(int k) {
        int c = given.get(k).character();
        double own = strength(c);
        int stronger = 0;
        for (int j = 0; j < given.size(); j++) {
            int other = given.get(j).character();
            double its = strength(other);
            boolean ahead = its > own + 1e-12 || (Math.abs(its - own) <= 1e-12 && j < k);
            stronger += j != k
                            && matrix.character(other).group()
                                    == matrix.character(c).group()
                            && ahead
                    ? 1
                    : 0;
        }
        return sum(stronger + 1) - sum(stronger);
    }

    private static double sum(int g) {
        return g == 0 ? 0 : g / (0.4 + 0.6 * g);
    }

    double strength(int c) {
        return information(c, i -> 1.0 / matrix.rowCount(), 0);
    }

    /** Posteriors of the rows, and of something else at the end; also the bits of every piece. */
    record Weighed(double[] posterior, List<double[]> bits) {}

    Weighed weigh() {
        int n = matrix.rowCount();
        double weights = matrix.rows().stream().mapToDouble(r -> r.weight()).sum();
        double[] odds = new double[n + 1];
        rows().forEach(i -> odds[i] = 0.98 * matrix.row(i).weight() / weights);
        odds[n] = 0.02;
        List<double[]> bits = new ArrayList<>();
        for (int k = 0; k < given.size(); k++) {
            Answer answer = given.get(k);
            int c = answer.character();
            double weight = weight(k);
            double b = scored(c).stream()
                    .mapToDouble(i -> likelihood(i, answer))
                    .average()
                    .orElse(0);
            double total = DoubleStream.of(odds).sum();
            double[] ratio = new double[n];
            double mixed = 0;
            double mass = 0;
            for (int i : rows()) {
                boolean known = b > 0 && scored(c).contains(i) && exists(i, c);
                ratio[i] = known ? (0.98 * likelihood(i, answer) + 0.02 * b) / b : NONE;
                mixed += known ? odds[i] / total * ratio[i] : 0;
                mass += known ? odds[i] / total : 0;
            }
            double[] own = new double[n];
            for (int i : rows()) {
                double factor = Double.isNaN(ratio[i]) ? (mass > 0 ? mixed / mass : 1) : ratio[i];
                own[i] = weight * Math.log(factor) / Math.log(2);
                odds[i] *= Math.pow(factor, weight);
            }
            bits.add(own);
        }
        double total = DoubleStream.of(odds).sum();
        return new Weighed(DoubleStream.of(odds).map(o -> o / total).toArray(), bits);
    }

    /** Answers, not implied ones, that speak against what the row may show; those by rules of thumb do not count. */
    int mismatches(int row) {
        return (int) IntStream.range(0, given.size())
                .filter(k -> isCompared(row, k)
                        && contradicts(row, given.get(k))
                        && !given.get(k).rough())
                .count();
    }

    int compared(int row) {
        return (int) IntStream.range(0, given.size())
                .filter(k -> isCompared(row, k) && !implied.get(k))
                .count();
    }

    private boolean isCompared(int row, int k) {
        int c = given.get(k).character();
        return scored(c).contains(row) && exists(row, c);
    }

    /** Characters that may be asked now, with their bits a minute. */
    Map<Integer, Double> questions(double[] posterior, IdentifyOptions options) {
        double outside = posterior[posterior.length - 1];
        return IntStream.range(0, matrix.characterCount())
                .filter(c -> IntStream.range(0, given.size())
                        .noneMatch(k -> given.get(k).character() == c && !implied.get(k)))
                .filter(c -> !options.isUnavailable(c))
                .filter(c -> (matrix.character(c).months() & options.months()) != 0)
                .filter(c -> mayApply(c, posterior))
                .boxed()
                .collect(Collectors.toMap(
                        c -> c,
                        c -> information(c, i -> posterior[i], outside)
                                / Math.max(0.1, matrix.character(c).effort())));
    }

    private boolean mayApply(int c, double[] posterior) {
        boolean denied = matrix.character(c).appliesWhen().stream()
                .anyMatch(w -> given.stream()
                        .anyMatch(a -> a.character() == w.character()
                                && (((Observation.Seen) a.observation()).states() & w.states()) == 0));
        double on = rows().stream()
                .filter(i -> exists(i, c))
                .mapToDouble(i -> posterior[i])
                .sum();
        double all = rows().stream().mapToDouble(i -> posterior[i]).sum();
        return !denied && on >= 0.5 * all;
    }
}
