package org.polyclave.core.testkit;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;

/**
 * Readers of a couplet key, one by one, each with a specimen of a row drawn evenly: what they look at they read once, rightly or
 * not, and follow the lead that says it. For rows of which nothing was measured.
 */
public final class CoupletReaders {
    private final Matrix matrix;
    private final Key key;
    private final Map<Integer, Key.Couplet> couplets = new HashMap<>();
    private final Observer observer;
    private final Random random;
    /** What the specimen shows, and what was read of it. */
    private final Map<Integer, Integer> shown = new HashMap<>();

    private final Map<Integer, Double> read = new HashMap<>();
    private long coupletsRead;
    private double minutes;

    /**
     * How many of all readers ended how.
     *
     * @param dangerous some of the wrong: their specimen is dangerous, and nothing that they are told is
     * @param couplets that all of them read
     * @param minutes that all of them spent, looking at each character once
     */
    public record Ends(int right, int wrong, int dangerous, int stuck, long couplets, double minutes) {}

    public CoupletReaders(Matrix matrix, Key key, Observer observer, long seed) {
        this.matrix = matrix;
        this.key = key;
        this.observer = observer;
        random = new Random(seed);
        key.couplets().forEach(c -> couplets.put(c.number(), c));
    }

    public Ends run(int readers) {
        int[] ends = new int[4];
        coupletsRead = 0;
        minutes = 0;
        for (int n = 0; n < readers; n++) {
            shown.clear();
            read.clear();
            int row = random.nextInt(matrix.rowCount());
            List<Integer> named = walk(row);
            if (named.isEmpty()) {
                ends[3]++;
            } else if (named.stream()
                    .anyMatch(r -> matrix.row(r).name() == matrix.row(row).name())) {
                ends[0]++;
            } else {
                ends[1]++;
                boolean warned =
                        named.stream().anyMatch(r -> matrix.row(r).hazard().isDangerous());
                ends[2] += !warned && matrix.row(row).hazard().isDangerous() ? 1 : 0;
            }
        }
        return new Ends(ends[0], ends[1], ends[2], ends[3], coupletsRead, minutes);
    }

    /** The rows at the end, or none where no lead says what was read. */
    private List<Integer> walk(int row) {
        if (key.couplets().isEmpty()) {
            return key.whole().rows();
        }
        Key.Couplet couplet = key.couplets().get(0);
        while (true) {
            Optional<Key.Target> to = next(row, couplet);
            if (to.isEmpty()) {
                return List.of();
            }
            if (to.get() instanceof Key.ToRows end) {
                return end.rows();
            }
            couplet = Objects.requireNonNull(couplets.get(((Key.ToCouplet) to.get()).number()));
        }
    }

    private Optional<Key.Target> next(int row, Key.Couplet couplet) {
        int c = couplet.leads().get(0).statements().get(0).character();
        Double before = read.get(c);
        coupletsRead++;
        minutes += before == null ? matrix.character(c).effort() : 0;
        double reading = before == null ? read(row, c) : before;
        read.put(c, reading);
        for (Key.Lead lead : couplet.leads()) {
            if (accepts(lead.statements().get(0).atoms(), reading)) {
                return Optional.of(lead.to());
            }
        }
        return Optional.empty();
    }

    private static boolean accepts(Atoms atoms, double reading) {
        return atoms instanceof Atoms.States states
                ? (states.mask() & (1 << (int) reading)) != 0
                : ((Atoms.Interval) atoms).contains(reading);
    }

    private double read(int row, int c) {
        MatrixCharacter character = matrix.character(c);
        double rate = character.misreading().rate(observer, row);
        if (!exists(row, c)) {
            return elsewhere(c);
        }
        if (character.type().isNumeric()) {
            boolean misread = !(matrix.cell(row, c) instanceof Cell.Numeric) || random.nextDouble() < rate;
            return misread ? elsewhere(c) : about(character, number(character, (Cell.Numeric) matrix.cell(row, c)));
        }
        int state = state(row, c);
        int n = character.stateCount();
        Cell.Categorical cell = matrix.cell(row, c) instanceof Cell.Categorical known ? known : null;
        int mistaken = cell == null ? 0 : cell.readable() & ~cell.support();
        if (n > 1 && mistaken != 0 && random.nextDouble() < 0.15) {
            return oneOf(mistaken);
        }
        int alike = character.confusable(state) & ~mistaken;
        int others = character.allStates() & ~mistaken & ~alike & ~(1 << state);
        if (n == 1 || (alike | others) == 0 || random.nextDouble() >= rate) {
            return state;
        }
        boolean toAlike = others == 0 || (alike != 0 && random.nextDouble() < 0.7);
        return oneOf(toAlike ? alike : others);
    }

    /** A length is read to within its stated uncertainty, or one part in twenty; a count is counted. */
    private double about(MatrixCharacter character, double value) {
        double off = 2 * random.nextDouble() - 1;
        if (character.type() == CharacterType.COUNT) {
            return value;
        }
        return value + off * (character.uncertainty() > 0 ? character.uncertainty() : value / 20);
    }

    private int oneOf(int mask) {
        int skip = random.nextInt(Integer.bitCount(mask));
        int bits = mask;
        for (int k = 0; k < skip; k++) {
            bits &= bits - 1;
        }
        return Integer.numberOfTrailingZeros(bits);
    }

    /** What another specimen, of any row that is scored, shows. */
    private double elsewhere(int c) {
        int[] scored = IntStream.range(0, matrix.rowCount())
                .filter(r -> matrix.cell(r, c) instanceof Cell.Categorical || matrix.cell(r, c) instanceof Cell.Numeric)
                .toArray();
        if (scored.length == 0) {
            return matrix.character(c).type().isNumeric()
                    ? random.nextDouble()
                    : random.nextInt(matrix.character(c).stateCount());
        }
        Cell cell = matrix.cell(scored[random.nextInt(scored.length)], c);
        return cell instanceof Cell.Numeric range
                ? number(matrix.character(c), range)
                : drawn(((Cell.Categorical) cell).shares());
    }

    private int drawn(double[] shares) {
        double left = random.nextDouble();
        int last = 0;
        for (int s = 0; s < shares.length; s++) {
            if (shares[s] > 0) {
                last = s;
                left -= shares[s];
                if (left < 0) {
                    return s;
                }
            }
        }
        return last;
    }

    /** What the specimen shows, drawn once. */
    private int state(int row, int c) {
        Integer known = shown.get(c);
        if (known == null) {
            known = matrix.cell(row, c) instanceof Cell.Categorical cell ? drawn(cell.shares()) : (int) elsewhere(c);
            shown.put(c, known);
        }
        return known;
    }

    private boolean exists(int row, int c) {
        if (matrix.cell(row, c) instanceof Cell.NotApplicable) {
            return false;
        }
        for (ControllingCondition condition : matrix.character(c).appliesWhen()) {
            boolean met = exists(row, condition.character())
                    && (condition.states() & (1 << state(row, condition.character()))) != 0;
            if (!met) {
                return false;
            }
        }
        return true;
    }

    /** Nine in ten within the core, the tails evenly by their width; whole numbers for counts. */
    private double number(MatrixCharacter character, Cell.Numeric range) {
        boolean whole = character.type() == CharacterType.COUNT;
        double half = whole ? 0.5 : range.min() == range.max() ? character.uncertainty() : 0;
        double min = range.min() - half;
        double max = range.max() + half;
        double low = range.low() - (whole || range.min() == range.max() ? half : 0);
        double high = range.high() + (whole || range.min() == range.max() ? half : 0);
        double tails = low - min + max - high;
        double value;
        if (tails > 0 && random.nextDouble() < 0.1) {
            double at = random.nextDouble() * tails;
            value = at < low - min ? min + at : high + at - (low - min);
        } else {
            value = low + random.nextDouble() * (high - low);
        }
        return whole ? Math.rint(value) : value;
    }
}
