package org.polyclave.study.notation;

import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Units;

/**
 * Ranges of numbers: {@code 5–9}, {@code (3–)5–9(–12) mm}, {@code 4,5}, {@code 12}, {@code 1/2–3/4 in}, {@code 5 mm to 1.2 cm},
 * {@code c. 10}, {@code >10}, {@code up to 6}; for counts also {@code 4, 8}, {@code 4 or 8}, {@code usually 5, rarely 3–4} and
 * {@code many}. A number without a unit takes that of the next one that has one, then of the last, then the column's.
 */
final class RangeNotation {
    /** "Many", as a count: this many or more. */
    static final double MANY = 12;
    /** What is said to be about so much may be this share less or more, a count at least one. */
    private static final double APPROXIMATE = 0.1;

    private static final String NUMBER = "([+-]?(?:\\d+ )?\\d+/\\d+|[+-]?(?:\\d+(?:[.,]\\d+)?|[.,]\\d+))";
    /** A word or sign after a number; whether it is a unit is found later, so that it can be named if it is none. */
    private static final String UNIT = "\\s*([^\\d\\s()+,;<>~-][^\\d()-]*?)?\\s*";

    private static final Pattern RANGE = Pattern.compile(
            "(?:\\(\\s*" + NUMBER + UNIT + "(?:-\\s*\\)\\s*|\\)(?=[\\d.])))?" + NUMBER + UNIT + "(?:-\\s*" + NUMBER
                    + UNIT + ")?(?:(?:\\(\\s*-\\s*|(?<=\\S)\\()" + NUMBER + UNIT + "\\)" + UNIT + ")?");
    private static final Pattern ABOUT = Pattern.compile("(?:c\\.|ca\\.?|circa|about|around|approx\\.?|approximately"
            + "|roughly|nearly|almost|mostly|usually|commonly|~|≈|±)\\s*(?=[\\d(.])(.*)");
    private static final Pattern AT_LEAST =
            Pattern.compile("(?:(>=|≥|at least|from)|>|over|above|more than)\\s*" + NUMBER + UNIT);
    private static final Pattern OR_MORE =
            Pattern.compile(NUMBER + UNIT + "(?:\\+|or more|and more|or over|and over)" + UNIT);
    private static final Pattern AT_MOST =
            Pattern.compile("(?:(<=|≤|at most|up to|to|max\\.?)|<|under|below|less than)\\s*" + NUMBER + UNIT);

    /** Least, lower, upper, greatest. */
    private static final int VALUES = 4;

    private RangeNotation() {}

    static CellNotation.ParseResult parse(String text, CharacterType type, String columnUnit) {
        Reading reading = new Reading(text, type, columnUnit);
        // Nearly all of a large table is so: nothing else can match it.
        if (NumberText.isBare(text)) {
            Matcher range = RANGE.matcher(text.replace('–', '-'));
            return range.matches() ? reading.range(range, false) : reading.noRange();
        }
        String plain = NumberText.of(text);
        boolean count = type == CharacterType.COUNT;
        if (count && plain.equals("many")) {
            return new CellNotation.Parsed(new ScoreValue.Range(MANY, MANY, null, null));
        }
        if (count && CountNotation.isListed(plain)) {
            return CountNotation.parse(plain);
        }
        Matcher least = AT_LEAST.matcher(plain);
        if (least.matches()) {
            double more = least.group(1) == null && count ? 1 : 0;
            return reading.open(least.group(2), least.group(3), more, true);
        }
        Matcher more = OR_MORE.matcher(plain);
        if (more.matches()) {
            return reading.open(more.group(1), more.group(2) == null ? more.group(3) : more.group(2), 0, true);
        }
        Matcher most = AT_MOST.matcher(plain);
        if (most.matches()) {
            double less = most.group(1) == null && count ? -1 : 0;
            return reading.open(most.group(2), most.group(3), less, false);
        }
        Matcher about = ABOUT.matcher(plain);
        boolean approximate = about.matches();
        Matcher range = RANGE.matcher(approximate ? about.group(1) : plain);
        return range.matches() ? reading.range(range, approximate) : reading.noRange();
    }

    /** One text that is being read as a range of one type. */
    private record Reading(String text, CharacterType type, String columnUnit) {
        private CellNotation.ParseResult noRange() {
            return new CellNotation.Rejected(
                    "'" + text + "' is not a number or range. Write for example '5–9' or '(3–)5–9(–12)'.", List.of());
        }

        /** @param step by how much a count lies beyond the number that was named */
        private CellNotation.ParseResult open(String number, @Nullable String unit, double step, boolean least) {
            double end = NumberText.number(number);
            CellNotation.ParseResult wrong = wrong(end, unit);
            if (wrong != null) {
                return wrong;
            }
            double value = Math.max(0, inBase(end + step, unit));
            return checked(
                    least ? new ScoreValue.Range(value, value, null, null) : new ScoreValue.Range(0, 0, value, value));
        }

        /** Groups of {@link #RANGE}: each number with its unit. */
        private CellNotation.ParseResult range(Matcher range, boolean approximate) {
            @Nullable Double[] values = new @Nullable Double[VALUES];
            for (int i = 0; i < values.length; i++) {
                String number = range.group(2 * i + 1);
                if (number != null) {
                    @Nullable String unit = unitOf(range, i);
                    CellNotation.ParseResult wrong = wrong(NumberText.number(number), unit);
                    if (wrong != null) {
                        return wrong;
                    }
                    values[i] = inBase(NumberText.number(number), unit);
                }
            }
            double low = value(values[1], 0);
            double high = value(values[2], low);
            double min = value(values[0], low);
            double max = value(values[3], high);
            if (min > low || low > high || high > max) {
                return new CellNotation.Rejected(
                        "The numbers of '" + text + "' do not rise from left to right. Swap them, or check the unit.",
                        List.of());
            }
            return checked(
                    approximate
                            ? new ScoreValue.Range(Math.max(0, min - margin(min)), low, high, max + margin(max))
                            : new ScoreValue.Range(min, low, high, max));
        }

        /** Its own, the next one to the right, or the last one on the left. */
        private static @Nullable String unitOf(Matcher range, int number) {
            for (int k = number; k <= VALUES; k++) {
                String unit = range.group(k == VALUES ? range.groupCount() : 2 * k + 2);
                if (unit != null) {
                    return unit;
                }
            }
            for (int k = number - 1; k >= 0; k--) {
                if (range.group(2 * k + 2) != null) {
                    return range.group(2 * k + 2);
                }
            }
            return null;
        }

        private double margin(double value) {
            return type == CharacterType.COUNT
                    ? Math.max(1, Math.floor(value * APPROXIMATE))
                    : Units.scaled(value, APPROXIMATE);
        }

        private static double value(@Nullable Double value, double otherwise) {
            return value == null ? otherwise : value;
        }

        private CellNotation.@Nullable ParseResult wrong(double number, @Nullable String unit) {
            if (Units.factor(type, unit == null ? columnUnit : unit).isEmpty()) {
                return new CellNotation.Rejected(
                        "'" + (unit == null ? columnUnit : unit.strip())
                                + "' is not a unit of this kind of character. Remove it or use a unit of "
                                + type.name().toLowerCase(Locale.ROOT) + ".",
                        List.of());
            }
            if (!Double.isFinite(number)) {
                return new CellNotation.Rejected(
                        "'" + text + "' is not a number that anything has. Check it.", List.of());
            }
            return number < 0
                    ? new CellNotation.Rejected("'" + text + "' is below zero. Sizes and counts start at 0.", List.of())
                    : null;
        }

        private double inBase(double number, @Nullable String unit) {
            return Units.scaled(
                    number, Units.factor(type, unit == null ? columnUnit : unit).orElse(1.0));
        }

        private CellNotation.ParseResult checked(ScoreValue.Range range) {
            double fraction = range.min() % 1
                    + range.low() % 1
                    + (range.high() == null ? 0 : range.high() % 1)
                    + (range.max() == null ? 0 : range.max() % 1);
            return type == CharacterType.COUNT && fraction != 0
                    ? new CellNotation.Rejected("'" + text + "' is not a whole number, but this is a count.", List.of())
                    : new CellNotation.Parsed(range);
        }
    }
}
