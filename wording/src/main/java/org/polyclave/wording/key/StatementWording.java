package org.polyclave.wording.key;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.study.notation.NotationPrinter;

/** Words one statement: organ first, positive, limits that do not overlap. */
public final class StatementWording {
    private StatementWording() {}

    /** "Leaf margin toothed or lobed", "Leaf width more than 6 mm". */
    public static String word(Key.Statement statement, StudyCharacter character, boolean plain) {
        String usually = statement.role() == Key.Role.TENDENCY ? " usually " : " ";
        return subject(character) + usually + observation(statement.atoms(), character, plain);
    }

    /** Organ and character, with a capital. */
    public static String subject(StudyCharacter character) {
        String label = character.label();
        String organ = character.organ();
        String subject =
                organ.isEmpty() || organ.startsWith("whole ") || sharesWord(organ, label) ? label : organ + " " + label;
        return subject.substring(0, 1).toUpperCase(Locale.ROOT) + subject.substring(1);
    }

    private static boolean sharesWord(String organ, String label) {
        return !Collections.disjoint(words(organ), words(label));
    }

    /** Without the s of the plural, so that the length of a claw is not that of "claws claw". */
    private static List<String> words(String text) {
        return Arrays.stream(text.toLowerCase(Locale.ROOT).split("[^\\p{L}]+"))
                .map(w -> w.endsWith("s") ? w.substring(0, w.length() - 1) : w)
                .toList();
    }

    /** What is seen, without the subject. */
    public static String observation(Atoms atoms, StudyCharacter character, boolean plain) {
        if (atoms instanceof Atoms.Interval interval) {
            return interval(interval, character);
        }
        int mask = ((Atoms.States) atoms).mask();
        if (character.type() == CharacterType.MONTHS) {
            List<Integer> months = new ArrayList<>();
            for (int m = 0; m < 12; m++) {
                if ((mask & (1 << m)) != 0) {
                    months.add(m + 1);
                }
            }
            return MonthNotation.print(months);
        }
        List<String> labels = new ArrayList<>();
        for (int s = 0; s < character.states().size(); s++) {
            if ((mask & (1 << s)) != 0) {
                labels.add(label(character.states().get(s), plain));
            }
        }
        return joined(labels);
    }

    private static String label(StudyState state, boolean plain) {
        return plain && !state.plain().isEmpty() ? state.plain() : state.label();
    }

    private static String joined(List<String> labels) {
        if (labels.size() < 2) {
            return String.join("", labels);
        }
        return String.join(", ", labels.subList(0, labels.size() - 1)) + " or " + labels.get(labels.size() - 1);
    }

    /** " (24–26 mm: do not decide on this)", rounded outward to what people read off; empty without a doubt. */
    static String doubt(Key.Statement statement, StudyCharacter character) {
        if (statement.doubt().isEmpty()) {
            return "";
        }
        Band band = Band.of(statement.doubt().get(), character);
        String from = NotationPrinter.number(band.from());
        String to = NotationPrinter.number(band.to());
        return " (" + (from.equals(to) ? from : from + "–" + to) + unit(character) + ": do not decide on this)";
    }

    /** " (about the width of a finger)"; empty if no size that people carry with them will do. */
    static String handy(Key.Statement statement) {
        return statement.handy().map(h -> " (about " + words(h) + ")").orElse("");
    }

    private static String words(Key.Handy handy) {
        String one = switch (handy.rule()) {
            case FINGERNAIL -> "the width of a fingernail";
            case FINGER_WIDTH -> "the width of a finger";
            case PENCIL -> "the width of a pencil";
            case HAND_SPAN -> "a hand span";
        };
        if (handy.times() == 1) {
            return one;
        }
        return handy.times() == 0.5 ? "half " + one : NotationPrinter.number(handy.times()) + " times " + one;
    }

    /** A band of doubt in the character's own unit, rounded outward to 1 or 5 of the decimals that its quarter has. */
    record Band(double from, double to) {
        static Band of(Key.Doubt doubt, StudyCharacter character) {
            BigDecimal factor = BigDecimal.valueOf(
                    Units.factor(character.type(), character.unit()).orElse(1.0));
            BigDecimal from = BigDecimal.valueOf(doubt.from()).divide(factor, MathContext.DECIMAL64);
            BigDecimal to = BigDecimal.valueOf(doubt.to()).divide(factor, MathContext.DECIMAL64);
            BigDecimal width = to.subtract(from);
            if (character.type() == CharacterType.COUNT || width.signum() <= 0) {
                return new Band(from.doubleValue(), to.doubleValue());
            }
            BigDecimal quarter = width.divide(BigDecimal.valueOf(4), MathContext.DECIMAL64);
            BigDecimal power = BigDecimal.ONE.scaleByPowerOfTen(quarter.precision() - quarter.scale() - 1);
            BigDecimal five = power.multiply(BigDecimal.valueOf(5));
            BigDecimal step = five.compareTo(quarter) <= 0 ? five : power;
            return new Band(
                    from.divide(step, 0, RoundingMode.FLOOR).multiply(step).doubleValue(),
                    to.divide(step, 0, RoundingMode.CEILING).multiply(step).doubleValue());
        }
    }

    private static String unit(StudyCharacter character) {
        return character.unit().isEmpty()
                ? ""
                : character.unit().equals("°") || character.unit().equals("%")
                        ? character.unit()
                        : " " + character.unit();
    }

    private static String interval(Atoms.Interval interval, StudyCharacter character) {
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        String unit = unit(character);
        String min = NotationPrinter.number(finite(interval.min() / factor));
        String max = NotationPrinter.number(finite(interval.max() / factor));
        if (Double.isInfinite(interval.min())) {
            return (interval.maxExclusive() ? "less than " : "up to ") + max + unit;
        }
        if (Double.isInfinite(interval.max())) {
            return interval.minExclusive() ? "more than " + min + unit : min + unit + " or more";
        }
        return interval.min() == interval.max() ? min + unit : min + "–" + max + unit;
    }

    private static Double finite(double x) {
        return Double.isFinite(x) ? x : 0;
    }
}
