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
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
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

    private boolean existsSurely(int row, int c) {
        return matrix.character(c).appliesWhen().stream()
                .allMatch(w -> existsSurely(row, w.character())
                        && matrix.cell(row, w.character()) instanceof Cell.Categorical shown
                        && (shown.readable() & ~w.states()) == 0);
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

    /** How often what is recorded has to do with the row: never by a blunder, nor where a number is misread. */
    private double right(int row, int c, Certainty certainty) {
        return 0.98 * (matrix.character(c).type().isNumeric() ? 1 - misreading(row, c, certainty) : 1);
    }

    private double right(int row, Answer answer) {
        return right(row, answer.character(), answer.certainty());
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
                        double careless = Math.min(
                                reading.uncertainty(), matrix.character(c).giveOrTake(reading.value()));
                        double off = reading.uncertainty() + 4 * misreading(row, c, l.certainty()) * careless;
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

    /** Mutual information of name and record; what is not scored, and what is outside, shows the mean of the scored rows. */
    double information(int c, IntToDoubleFunction shareOf, double outside) {
        List<Integer> scored = scored(c);
        List<double[]> records = records(c);
        int n = records.isEmpty() ? 0 : records.get(0).length;
        double[] mean = new double[n];
        records.forEach(r -> IntStream.range(0, n).forEach(o -> mean[o] += r[o] / records.size()));
        // Joint distribution of name and record; the name of what is outside is −1.
        Map<Integer, double[]> joint = new TreeMap<>();
        joint.put(-1, DoubleStream.of(mean).map(m -> m * outside).toArray());
        for (int i : rows()) {
            int at = scored.indexOf(i);
            double[] sum = joint.computeIfAbsent(matrix.row(i).name(), x -> new double[n]);
            for (int o = 0; o < n; o++) {
                sum[o] += shareOf.applyAsDouble(i)
                        * (at < 0
                                ? mean[o]
                                : right(i, c, Certainty.SURE) * records.get(at)[o]
                                        + (1 - right(i, c, Certainty.SURE)) * mean[o]);
            }
        }
        double[] all = new double[n];
        joint.values().forEach(j -> IntStream.range(0, n).forEach(o -> all[o] += j[o]));
        double bits = 0;
        for (double[] ofName : joint.values()) {
            double name = DoubleStream.of(ofName).sum();
            for (int o = 0; o < n; o++) {
                bits += ofName[o] > 0 ? ofName[o] * Math.log(ofName[o] / (name * all[o])) / Math.log(2) : 0;
            }
        }
        return Math.max(0, bits);
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
            boolean ahead = its > own + 1e-9 || (Math.abs(its - own) <= 1e-9 && j < k);
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
        long names = matrix.rows().stream().mapToInt(MatrixRow::name).distinct().count();
        return information(c, i -> 1.0 / names / ofName(i).size(), 0);
    }

    private List<Integer> ofName(int row) {
        return rows().stream().filter(i -> matrix.sharesName(i, row)).toList();
    }

    boolean isOutOfSeason(int row, int months) {
        int present = matrix.row(row).present();
        return present != 0 && states(present).stream().noneMatch(m -> (months >>> m & 1) == 1);
    }

    /** The part that the part of a character lies on, if it lies on one. */
    private int part(int c) {
        MatrixCharacter character = matrix.character(c);
        return character.around().isEmpty()
                ? character.organ()
                : character.around().get(0);
    }

    /** Posteriors of the rows, and of something else at the end; also the bits of every piece. */
    record Weighed(double[] posterior, List<double[]> bits) {
        double ofName(Matrix matrix, int row) {
            return IntStream.range(0, matrix.rowCount())
                    .filter(i -> matrix.row(i).name() == matrix.row(row).name())
                    .mapToDouble(i -> posterior[i])
                    .sum();
        }
    }

    /** Odds of each row, and of something else at the end, after some pieces: a product over parts of what each may say. */
    private double[] odds(double[] prior, List<double[]> factors) {
        double[] odds = prior.clone();
        List<Integer> parts = IntStream.range(0, factors.size())
                .map(k -> part(given.get(k).character()))
                .distinct()
                .boxed()
                .toList();
        for (int i : rows()) {
            for (int part : parts) {
                double product = IntStream.range(0, factors.size())
                        .filter(k -> part(given.get(k).character()) == part)
                        .mapToDouble(k -> factors.get(k)[i])
                        .reduce(1, (x, y) -> x * y);
                odds[i] *= 0.97 * product + 0.03;
            }
        }
        return odds;
    }

    Weighed weigh(IdentifyOptions options) {
        int n = matrix.rowCount();
        double weights = matrix.rows().stream().mapToDouble(r -> r.weight()).sum();
        double[] prior = new double[n + 1];
        rows().forEach(i -> prior[i] = 0.98
                * matrix.row(i).weight()
                / weights
                * (options.presence() && isOutOfSeason(i, options.months()) ? 0.1 : 1));
        prior[n] = 0.02;
        List<double[]> factors = new ArrayList<>();
        for (int k = 0; k < given.size(); k++) {
            Answer answer = given.get(k);
            int c = answer.character();
            double weight = weight(k);
            double b = scored(c).stream()
                    .mapToDouble(i -> likelihood(i, answer))
                    .average()
                    .orElse(0);
            double most = matrix.character(c).role() == CharacterRole.NECESSARY ? 1 : Double.POSITIVE_INFINITY;
            double[] odds = odds(prior, factors);
            double total = DoubleStream.of(odds).sum();
            double[] ratio = new double[n];
            double mixed = 0;
            double mass = 0;
            for (int i : rows()) {
                boolean known = b > 1e-9 && scored(c).contains(i) && exists(i, c);
                ratio[i] = known
                        ? Math.min(most, (right(i, answer) * likelihood(i, answer) + (1 - right(i, answer)) * b) / b)
                        : NONE;
                mixed += known ? odds[i] / total * ratio[i] : 0;
                mass += known ? odds[i] / total : 0;
            }
            double[] own = new double[n];
            for (int i : rows()) {
                double factor = Double.isNaN(ratio[i]) ? (mass > 0 ? mixed / mass : 1) : ratio[i];
                own[i] = Math.pow(factor, weight);
            }
            factors.add(own);
        }
        double[] odds = odds(prior, factors);
        double total = DoubleStream.of(odds).sum();
        return new Weighed(DoubleStream.of(odds).map(o -> o / total).toArray(), bits(factors));
    }

    /** What a part weighs, shared over its answers as they speak. */
    private List<double[]> bits(List<double[]> factors) {
        List<double[]> bits = new ArrayList<>();
        for (int k = 0; k < factors.size(); k++) {
            double[] own = new double[matrix.rowCount()];
            int part = part(given.get(k).character());
            for (int i : rows()) {
                double said = IntStream.range(0, factors.size())
                        .filter(j -> part(given.get(j).character()) == part)
                        .mapToDouble(j -> Math.log(factors.get(j)[i]))
                        .sum();
                double counts = Math.log(0.97 * Math.exp(said) + 0.03);
                double cut = Math.abs(said) < 1e-8 ? 0.97 : counts / said;
                own[i] = cut * Math.log(factors.get(k)[i]) / Math.log(2);
            }
            bits.add(own);
        }
        return bits;
    }

    /** Features, each by the parts it is of, whose answers contradict a row; those that only confirm do not count. */
    private Map<Integer, List<Integer>> contradicted(int row) {
        Map<Integer, List<Integer>> features = new TreeMap<>();
        for (int k = 0; k < given.size(); k++) {
            MatrixCharacter character = matrix.character(given.get(k).character());
            boolean decides = character.role() != CharacterRole.CONFIRMS && character.role() != CharacterRole.NECESSARY;
            if (decides && !given.get(k).rough() && isCompared(row, k) && contradicts(row, given.get(k))) {
                features.computeIfAbsent(character.group(), g -> new ArrayList<>())
                        .add(given.get(k).character());
            }
        }
        return features;
    }

    /** Whether one of a feature and one of another are of two parts of which neither lies in the other. */
    private boolean ofTwoParts(int row) {
        List<Integer> firsts =
                contradicted(row).values().stream().map(f -> f.get(0)).toList();
        return firsts.stream()
                .anyMatch(a -> firsts.stream().anyMatch(b -> {
                    MatrixCharacter p = matrix.character(a);
                    MatrixCharacter q = matrix.character(b);
                    return p.organ() != q.organ()
                            && !p.around().contains(q.organ())
                            && !q.around().contains(p.organ());
                }));
    }

    boolean isFirmlyContradicted(int row, int leader) {
        return contradicted(row).size() - 2 * contradicted(leader).size() >= 2
                && (contradicted(row).size() >= 3 || ofTwoParts(row));
    }

    boolean isUnlikeAll(int leader) {
        if (!ofTwoParts(leader)) {
            return false;
        }
        double excess = 0;
        double variance = 0;
        for (int k = 0; k < given.size(); k++) {
            Answer answer = given.get(k);
            int c = answer.character();
            int at = scored(c).indexOf(leader);
            if (implied.get(k) || answer.rough() || answer.certainty() != Certainty.SURE || at < 0) {
                continue;
            }
            List<double[]> records = records(c);
            double[] own = IntStream.range(0, records.get(at).length)
                    .mapToDouble(o -> right(leader, c, Certainty.SURE) * records.get(at)[o]
                            + (1 - right(leader, c, Certainty.SURE))
                                    * records.stream()
                                            .mapToDouble(r -> r[o])
                                            .average()
                                            .orElse(0))
                    .toArray();
            double chance = IntStream.range(0, own.length)
                    .filter(o -> isRecord(c, o, answer.observation()))
                    .mapToDouble(o -> own[o])
                    .sum();
            double mean = entropy(own);
            double square = DoubleStream.of(own)
                    .filter(p -> p > 0)
                    .map(p -> p * Math.pow(Math.log(p) / Math.log(2), 2))
                    .sum();
            if (chance > 0) {
                excess += -Math.log(chance) / Math.log(2) - mean;
                variance += square - mean * mean;
            }
        }
        return excess > 3 * Math.sqrt(variance);
    }

    private boolean isRecord(int c, int o, Observation observation) {
        if (observation instanceof Observation.Seen seen) {
            return (seen.states() >>> o & 1) == 1;
        }
        double value = ((Observation.MeasuredObservation) observation).value();
        double half = matrix.character(c).type() == CharacterType.COUNT ? 0.5 : 0;
        List<Cell.Numeric> ranges =
                scored(c).stream().map(i -> (Cell.Numeric) matrix.cell(i, c)).toList();
        double low = ranges.stream().mapToDouble(Cell.Numeric::min).min().orElse(0) - half;
        double high = ranges.stream().mapToDouble(Cell.Numeric::max).max().orElse(0) + half;
        if (low == high) {
            return o == 0;
        }
        return o == Math.max(0, Math.min(7, (int) Math.ceil((value - low) / (high - low) * 8) - 1));
    }

    /** Necessary characters without an answer of which a row surely shows something. */
    List<Integer> mustShow(int row) {
        return necessary()
                .filter(c -> given.stream().noneMatch(a -> a.character() == c) || implied.get(indexOf(c)))
                .filter(c -> scored(c).contains(row) && existsSurely(row, c))
                .boxed()
                .toList();
    }

    private int indexOf(int c) {
        return IntStream.range(0, given.size())
                .filter(k -> given.get(k).character() == c)
                .findFirst()
                .orElseThrow();
    }

    private IntStream necessary() {
        return IntStream.range(0, matrix.characterCount())
                .filter(c -> matrix.character(c).role() == CharacterRole.NECESSARY);
    }

    /** Whether something was seen of a necessary character that every row scored for it is contradicted by. */
    boolean lacksWhatAllShow() {
        return IntStream.range(0, given.size())
                .filter(k -> matrix.character(given.get(k).character()).role() == CharacterRole.NECESSARY)
                .filter(k ->
                        !implied.get(k) && !given.get(k).rough() && given.get(k).certainty() == Certainty.SURE)
                .anyMatch(k -> rows().stream().anyMatch(i -> isCompared(i, k))
                        && rows().stream().allMatch(i -> !isCompared(i, k) || contradicts(i, given.get(k))));
    }

    int fewestMismatches(int row) {
        return ofName(row).stream().mapToInt(this::mismatches).min().orElseThrow();
    }

    /** What must be seen of the leader first, then what decides, then what only confirms. */
    int turn(int c, double[] posterior) {
        int leader = leader(posterior);
        if (share(posterior, leader) >= 0.9 && mustShow(leader).contains(c)) {
            return 0;
        }
        CharacterRole role = matrix.character(c).role();
        return role == CharacterRole.CONFIRMS || role == CharacterRole.NECESSARY ? 2 : 1;
    }

    private double share(double[] posterior, int row) {
        return ofName(row).stream().mapToDouble(i -> posterior[i]).sum();
    }

    private int leader(double[] posterior) {
        return rows().stream()
                .max(Comparator.comparingDouble((Integer i) -> share(posterior, i))
                        .thenComparing(i -> posterior[i])
                        .thenComparing(Comparator.reverseOrder()))
                .orElseThrow();
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
    Map<Integer, Double> questions(Weighed weighed, IdentifyOptions options) {
        double[] contest = contest(weighed);
        long answered =
                IntStream.range(0, given.size()).filter(k -> !implied.get(k)).count();
        return IntStream.range(0, matrix.characterCount())
                .filter(c -> IntStream.range(0, given.size())
                        .noneMatch(k -> given.get(k).character() == c && !implied.get(k)))
                .filter(c -> !options.isUnavailable(c))
                .filter(c -> answered > 0 || matrix.character(c).role() != CharacterRole.NEVER_FIRST)
                .filter(c -> (matrix.character(c).months() & options.months()) != 0)
                .filter(c -> mayApply(c, weighed.posterior()))
                .boxed()
                .collect(Collectors.toMap(
                        c -> c,
                        c -> news(c)
                                * information(c, i -> contest[i], contest[contest.length - 1])
                                / Math.max(0.1, matrix.character(c).effort())));
    }

    private double news(int c) {
        int alike = (int) given.stream()
                .filter(a -> matrix.character(a.character()).group()
                        == matrix.character(c).group())
                .count();
        return sum(alike + 1) - sum(alike);
    }

    /** Between whom to decide: all, or a name of 90 % and what keeps it from being settled, one half each. */
    private double[] contest(Weighed weighed) {
        double[] posterior = weighed.posterior();
        int leader = leader(posterior);
        long answered =
                IntStream.range(0, given.size()).filter(k -> !implied.get(k)).count();
        if (answered == 0 || share(posterior, leader) < 0.9) {
            return posterior;
        }
        List<Integer> against = rows().stream()
                .filter(i -> !matrix.sharesName(i, leader)
                        && compared(i) >= answered / 2.0
                        && isRival(i, leader, weighed)
                        && !isFirmlyContradicted(i, leader))
                .toList();
        double mass = against.stream().mapToDouble(i -> posterior[i]).sum();
        if (mass == 0) {
            return posterior;
        }
        double[] even = new double[posterior.length];
        ofName(leader).forEach(i -> even[i] = posterior[i] / share(posterior, leader) / 2);
        against.forEach(i -> even[i] = posterior[i] / mass / 2);
        return even;
    }

    /** With the bits of rules of thumb given back, where that makes it likelier. */
    private boolean isRival(int row, int leader, Weighed weighed) {
        double given = roughBits(leader, weighed) - roughBits(row, weighed);
        double odds = weighed.posterior()[row] / weighed.posterior()[leader] * Math.pow(2, given);
        return odds / (1 + odds) >= 0.002 || weighed.posterior()[row] >= 0.002;
    }

    private double roughBits(int row, Weighed weighed) {
        return IntStream.range(0, given.size())
                .filter(k -> given.get(k).rough())
                .mapToDouble(k -> weighed.bits().get(k)[row])
                .sum();
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
