package org.polyclave.wording.lead;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.study.notation.NotationPrinter;

/**
 * Words for what is seen of a character, for the slot of its clause.
 *
 * @param count the number that a plural goes by; of a range its end
 */
public record Seen(String words, double count) {
    /** Ordered states of which so many in a row are told by their ends. */
    private static final int RUN = 3;

    /** An end of a range beyond all that is known. */
    private static final double MANY = 2;

    public static Seen of(StudyCharacter character, Clause clause, Atoms atoms) {
        if (atoms instanceof Atoms.Interval interval) {
            return character.type() == CharacterType.COUNT ? counted(interval) : measured(interval, character);
        }
        int mask = ((Atoms.States) atoms).mask();
        if (character.type() == CharacterType.MONTHS) {
            return new Seen(inMonths(months(mask)), 1);
        }
        List<String> phrases = new ArrayList<>();
        for (int s = 0; s < clause.phrases().size(); s++) {
            if ((mask & (1 << s)) != 0) {
                phrases.add(clause.phrases().get(s));
            }
        }
        boolean graded = character.type() == CharacterType.ORDERED && phrases.size() >= RUN && isRun(mask);
        return new Seen(graded ? graded(mask, phrases, clause) : English.alternatives(phrases), 1);
    }

    /** "in June", "from May to July", "all year". */
    static String inMonths(List<Integer> months) {
        String words = MonthNotation.words(months);
        return (words.contains(" to ") ? "from " : words.startsWith("all") ? "" : "in ") + words;
    }

    private static List<Integer> months(int mask) {
        List<Integer> months = new ArrayList<>();
        for (int m = 0; m < 12; m++) {
            if ((mask & (1 << m)) != 0) {
                months.add(m + 1);
            }
        }
        return months;
    }

    private static boolean isRun(int mask) {
        return Integer.bitCount(mask) == 32 - Integer.numberOfLeadingZeros(mask) - Integer.numberOfTrailingZeros(mask);
    }

    private static String graded(int mask, List<String> phrases, Clause clause) {
        String first = phrases.get(0);
        String last = phrases.get(phrases.size() - 1);
        if ((mask & 1) != 0) {
            return "at most " + last;
        }
        boolean toTheEnd = (mask & (1 << (clause.phrases().size() - 1))) != 0;
        return toTheEnd ? "at least " + first : first + " to " + last;
    }

    /** Whole numbers to ten in words: "three or four", "four to six", "none". */
    private static Seen counted(Atoms.Interval interval) {
        double min = interval.minExclusive() ? Math.floor(interval.min()) + 1 : Math.ceil(interval.min());
        double max = interval.maxExclusive() ? Math.ceil(interval.max()) - 1 : Math.floor(interval.max());
        if (Double.isInfinite(min) && Double.isInfinite(max)) {
            return new Seen("any number", MANY);
        }
        if (Double.isInfinite(max)) {
            return new Seen(English.number(min) + " or more", Math.max(min, MANY));
        }
        if (Double.isInfinite(min) && max > 0) {
            return new Seen("up to " + English.number(max), max);
        }
        double from = Double.isInfinite(min) ? 0 : min;
        if (from >= max) {
            return new Seen(English.number(max), max);
        }
        String joint = max == from + 1 ? " or " : " to ";
        boolean inWords = !English.number(max).matches("\\d.*");
        return new Seen(
                inWords
                        ? English.number(from) + joint + English.number(max)
                        : NotationPrinter.number(from) + "–" + NotationPrinter.number(max),
                max);
    }

    /** "2–5 mm", "more than 7 and up to 12 mm", "more than 6 mm". */
    private static Seen measured(Atoms.Interval interval, StudyCharacter character) {
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        String unit = unit(character);
        String min = Double.isInfinite(interval.min()) ? "" : NotationPrinter.number(interval.min() / factor);
        String max = Double.isInfinite(interval.max()) ? "" : NotationPrinter.number(interval.max() / factor);
        String words;
        if (min.isEmpty()) {
            words = (interval.maxExclusive() ? "less than " : "up to ") + max + unit;
        } else if (max.isEmpty()) {
            words = interval.minExclusive() ? "more than " + min + unit : min + unit + " or more";
        } else if (min.equals(max)) {
            words = min + unit;
        } else if (interval.minExclusive()) {
            words = "more than " + min + " and " + (interval.maxExclusive() ? "less than " : "up to ") + max + unit;
        } else {
            words = interval.maxExclusive() ? min + " to less than " + max + unit : min + "–" + max + unit;
        }
        return new Seen(words, MANY);
    }

    /** With the space that stands before it. */
    public static String unit(StudyCharacter character) {
        String unit = character.unit().equals("um") ? "µm" : character.unit();
        return unit.isEmpty() || unit.equals("°") || unit.equals("%") ? unit : " " + unit;
    }
}
