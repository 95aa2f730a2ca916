package org.polyclave.study.checks;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.NotationPrinter;

/**
 * Finds sizes and counts that no relative has: a range far outside those of the genus, else of the study, that a factor of
 * 10, 100, 1000 or an inch brings back among them, and two measures whose order is the reverse of that in all other taxa (a
 * swap, or a part longer than the whole). Time O(rows · measures²).
 */
final class SizeCheck {
    /** Decimal point, centimetres, metres, micrometres; inches taken for millimetres, and for centimetres. */
    private static final double[] FACTORS = {10, 100, 1000, 25.4};

    /** Fewer relatives do not show how much a character varies. */
    private static final int FEWEST_RELATIVES = 4;
    /** How many times beyond the largest, or below the smallest, of the relatives something is far outside. */
    private static final double FAR = 1.6;
    /** A genus of few species varies more than they show. */
    private static final double FAR_IN_GENUS = 3;
    /** What is brought back may lie this many times beyond them. */
    private static final double AMONG = 1.15;

    private static final int MANY = 10;

    private static final int FEWEST_IN_ORDER = 6;
    /** One measure is this much smaller than the other in all other taxa, and as much larger here. */
    private static final double CLEARLY = 0.8;

    private final CompiledStudy compiled;
    private final Matrix matrix;
    private final List<StudyFinding> found = new ArrayList<>();

    private SizeCheck(CompiledStudy compiled) {
        this.compiled = compiled;
        matrix = compiled.matrix();
    }

    static List<StudyFinding> of(CompiledStudy compiled) {
        SizeCheck check = new SizeCheck(compiled);
        int[] measures = IntStream.range(0, compiled.characters().size())
                .filter(c -> isSize(compiled.characters().get(c).type()))
                .toArray();
        boolean[][] told =
                new boolean[compiled.rows().size()][compiled.characters().size()];
        for (int c : measures) {
            check.magnitudes(c, told);
        }
        for (int a : measures) {
            for (int b : measures) {
                if (a < b
                        && compiled.characters().get(a).type()
                                == compiled.characters().get(b).type()) {
                    check.order(a, b, told);
                }
            }
        }
        return check.found;
    }

    private static boolean isSize(CharacterType type) {
        return type == CharacterType.LENGTH || type == CharacterType.MASS || type == CharacterType.COUNT;
    }

    /** The smallest and the largest of some ranges. */
    private record Hull(double least, double most) {
        boolean holds(double low, double high, double leeway) {
            return low >= least / leeway && high <= most * leeway;
        }

        boolean isFarFrom(double low, double high, double far) {
            return low > most * far || high < least / far;
        }
    }

    /** What a row says of a size, where it says more than zero. */
    private Optional<Cell.Numeric> range(int row, int c) {
        return matrix.cell(row, c) instanceof Cell.Numeric range && range.high() > 0 && range.low() > 0
                ? Optional.of(range)
                : Optional.empty();
    }

    /** The ranges of some rows, of which those of one name can be left out: kept so that it costs nothing. */
    private static final class Relatives {
        private final Map<Integer, Integer> rowsOfName = new HashMap<>();
        private final double[] least = {Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY};
        private final double[] most = {0, 0};
        private int leastName = -1;
        private int mostName = -1;
        private int rows;

        void add(int name, Cell.Numeric range) {
            rowsOfName.merge(name, 1, Integer::sum);
            rows++;
            if (range.low() < least[0]) {
                least[1] = name == leastName ? least[1] : least[0];
                least[0] = range.low();
                leastName = name;
            } else if (name != leastName && range.low() < least[1]) {
                least[1] = range.low();
            }
            if (range.high() > most[0]) {
                most[1] = name == mostName ? most[1] : most[0];
                most[0] = range.high();
                mostName = name;
            } else if (name != mostName && range.high() > most[1]) {
                most[1] = range.high();
            }
        }

        int countWithout(int name) {
            return rows - rowsOfName.getOrDefault(name, 0);
        }

        Hull hullWithout(int name) {
            return new Hull(name == leastName ? least[1] : least[0], name == mostName ? most[1] : most[0]);
        }
    }

    private void magnitudes(int c, boolean[][] told) {
        Relatives all = new Relatives();
        Map<Integer, Relatives> byKin = new HashMap<>();
        for (int i = 0; i < matrix.rowCount(); i++) {
            int row = i;
            range(i, c).ifPresent(range -> {
                all.add(matrix.row(row).name(), range);
                byKin.computeIfAbsent(matrix.row(row).kin(), k -> new Relatives())
                        .add(matrix.row(row).name(), range);
            });
        }
        StudyCharacter character = compiled.characters().get(c);
        for (int i = 0; i < matrix.rowCount(); i++) {
            Optional<Cell.Numeric> range = range(i, c);
            if (range.isEmpty()) {
                continue;
            }
            int name = matrix.row(i).name();
            Relatives kin = byKin.getOrDefault(matrix.row(i).kin(), all);
            Optional<Double> factor = factor(character, name, range.get(), kin, FAR_IN_GENUS)
                    .or(() -> factor(character, name, range.get(), all, FAR));
            if (factor.isPresent()) {
                told[i][c] = true;
                double right = factor.get();
                found.add(finding(FindingKind.OUT_OF_SCALE, i, character)
                        .with("value", printed(range.get(), 1, character))
                        .with("times", NotationPrinter.number(right < 1 ? rounded(1 / right) : right))
                        .with("large", right < 1 ? "true" : "false")
                        .with("would", printed(range.get(), right, character)));
            }
        }
    }

    /** What brings a range back among others that it is far from. */
    private static Optional<Double> factor(
            StudyCharacter character, int name, Cell.Numeric range, Relatives relatives, double far) {
        Hull hull = relatives.hullWithout(name);
        // A count of one or two is a count; only a large one may have a digit too many.
        boolean count = character.type() == CharacterType.COUNT;
        if (relatives.countWithout(name) < FEWEST_RELATIVES
                || !hull.isFarFrom(range.low(), range.high(), far)
                || (count && range.high() < MANY)) {
            return Optional.empty();
        }
        return Arrays.stream(FACTORS)
                .flatMap(f -> Arrays.stream(count ? new double[] {1 / f} : new double[] {f, 1 / f}))
                .filter(f -> hull.holds(range.low() * f, range.high() * f, AMONG))
                .boxed()
                .findFirst();
    }

    /** Where one of two measures is always the smaller but for one row, something is wrong with that row. */
    private void order(int a, int b, boolean[][] told) {
        int[] rows = new int[3];
        int odd = -1;
        int usual = 0;
        for (int pass = 0; pass < 2; pass++) {
            for (int i = 0; i < matrix.rowCount(); i++) {
                if (told[i][a]
                        || told[i][b]
                        || !(matrix.cell(i, a) instanceof Cell.Numeric first)
                        || !(matrix.cell(i, b) instanceof Cell.Numeric second)
                        || !(first.low() > 0 && second.low() > 0)) {
                    continue;
                }
                int sign = sign(first, second);
                rows[sign + 1] += pass == 0 ? 1 : 0;
                odd = pass == 1 && sign == -usual ? i : odd;
            }
            usual = rows[0] > rows[2] ? -1 : 1;
            boolean oneReversed = rows[1] == 0 && rows[1 - usual] == 1 && rows[1 + usual] >= FEWEST_IN_ORDER;
            if (!oneReversed) {
                return;
            }
        }
        StudyCharacter first = compiled.characters().get(a);
        StudyCharacter second = compiled.characters().get(b);
        found.add(StudyFinding.of(
                        FindingKind.ORDER_REVERSED, compiled.rows().get(odd).id(), first.id(), second.id())
                .with("row", compiled.rows().get(odd).name())
                .with("character", first.label())
                .with("value", printed(range(odd, a).orElseThrow(), 1, first))
                .with("otherCharacter", second.label())
                .with("otherValue", printed(range(odd, b).orElseThrow(), 1, second))
                .with("larger", usual < 0 ? second.label() : first.label())
                .with("rows", rows[1 + usual]));
    }

    /** −1 where the first is clearly the smaller, 1 where it is clearly the larger. */
    private static int sign(Cell.Numeric first, Cell.Numeric second) {
        double ratio = Math.sqrt(first.low() * first.high() / (second.low() * second.high()));
        return ratio < CLEARLY ? -1 : ratio > 1 / CLEARLY ? 1 : 0;
    }

    /** To three digits: what a factor makes of a number has many. */
    private static double short3(double number) {
        return new BigDecimal(number).round(new MathContext(3)).doubleValue();
    }

    private static double rounded(double number) {
        return Math.round(number * 10) / 10.0;
    }

    private String printed(Cell.Numeric range, double factor, StudyCharacter character) {
        double unit = Units.factor(character.type(), character.unit()).orElse(1.0) / factor;
        String text = NotationPrinter.range(
                short3(range.low() / unit),
                short3(range.low() / unit),
                short3(range.high() / unit),
                short3(range.high() / unit));
        return character.unit().isEmpty() ? text : text + " " + character.unit();
    }

    private StudyFinding finding(FindingKind kind, int row, StudyCharacter character) {
        StudyRow of = compiled.rows().get(row);
        return StudyFinding.of(kind, of.id(), character.id())
                .with("row", of.name())
                .with("character", character.label());
    }
}
