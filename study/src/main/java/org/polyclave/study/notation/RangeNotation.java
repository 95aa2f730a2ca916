package org.polyclave.study.notation;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Units;

/**
 * Ranges of numbers: {@code 5–9}, {@code (3–)5–9(–12) mm}, {@code 4,5}, {@code 12}; for counts also {@code 4, 8},
 * {@code 4 or 8}, {@code usually 5, rarely 3–4}, {@code >=20}, {@code up to 6} and {@code many}.
 */
final class RangeNotation {
    /** "Many", as a count: this many or more. */
    static final double MANY = 12;

    private static final String NUMBER = "([+-]?\\d+(?:[.,]\\d+)?)";
    private static final Pattern RANGE = Pattern.compile("(?:\\(\\s*" + NUMBER + "\\s*[-–—]\\s*\\)\\s*)?" + NUMBER
            + "(?:\\s*[-–—]\\s*" + NUMBER + ")?(?:\\s*\\(\\s*[-–—]\\s*" + NUMBER + "\\s*\\))?\\s*([^\\d\\s()–—-].*)?");
    private static final Pattern AT_LEAST = Pattern.compile("(?:>=|≥|at least)\\s*" + NUMBER + "\\s*([^\\d\\s].*)?");
    private static final Pattern AT_MOST = Pattern.compile("(?:<=|≤|up to)\\s*" + NUMBER + "\\s*([^\\d\\s].*)?");

    private static final Pattern DATE = Pattern.compile("\\d{4}-(\\d{2})-(\\d{2})");

    private RangeNotation() {}

    private static String dayAndMonth(String date) {
        int month = Integer.parseInt(date.substring(5, 7));
        int day = Integer.parseInt(date.substring(8));
        return month + "-" + day + "' or '" + day + "-" + month;
    }

    static CellNotation.ParseResult parse(String text, CharacterType type, String columnUnit) {
        String lower = text.toLowerCase(Locale.ROOT);
        boolean count = type == CharacterType.COUNT;
        if (count && lower.equals("many")) {
            return new CellNotation.Parsed(new ScoreValue.Range(MANY, MANY, null, null));
        }
        if (count && CountNotation.isListed(lower)) {
            return CountNotation.parse(lower);
        }
        Matcher atLeast = AT_LEAST.matcher(lower);
        if (atLeast.matches()) {
            double low = number(atLeast.group(1));
            return scaled(low, low, null, null, atLeast.group(2), type, columnUnit, text);
        }
        Matcher atMost = AT_MOST.matcher(lower);
        if (atMost.matches()) {
            double high = number(atMost.group(1));
            return scaled(0, 0, high, high, atMost.group(2), type, columnUnit, text);
        }
        Matcher range = RANGE.matcher(text);
        if (DATE.matcher(text).matches()) {
            return new CellNotation.Rejected(
                    "'" + text + "' is a date: the spreadsheet program may have made it of '" + dayAndMonth(text)
                            + "'. Format the column as text and type it again.",
                    List.of());
        }
        if (!range.matches()) {
            return new CellNotation.Rejected(
                    "'" + text + "' is not a number or range. Write for example '5–9' or '(3–)5–9(–12)'.", List.of());
        }
        double low = number(range.group(2));
        double high = range.group(3) == null ? low : number(range.group(3));
        double min = range.group(1) == null ? low : number(range.group(1));
        double max = range.group(4) == null ? high : number(range.group(4));
        return scaled(min, low, high, max, range.group(5), type, columnUnit, text);
    }

    private static double number(String text) {
        return Double.parseDouble(text.replace(',', '.'));
    }

    private static CellNotation.ParseResult scaled(
            double min,
            double low,
            @Nullable Double high,
            @Nullable Double max,
            @Nullable String unit,
            CharacterType type,
            String columnUnit,
            String text) {
        Optional<Double> factor = Units.factor(type, unit == null ? columnUnit : unit);
        if (factor.isEmpty()) {
            return new CellNotation.Rejected(
                    "'" + (unit == null ? columnUnit : unit.strip())
                            + "' is not a unit of this kind of character. Remove it or use a unit of "
                            + type.name().toLowerCase(Locale.ROOT) + ".",
                    List.of());
        }
        if (min > low || (high != null && low > high) || (high != null && max != null && high > max)) {
            return new CellNotation.Rejected(
                    "The numbers of '" + text + "' do not rise from left to right. Swap them, or check the unit.",
                    List.of());
        }
        if (low < 0 || min < 0) {
            return new CellNotation.Rejected("'" + text + "' is below zero. Sizes and counts start at 0.", List.of());
        }
        if (type == CharacterType.COUNT && !isWhole(min, low, high, max)) {
            return new CellNotation.Rejected("'" + text + "' is not a whole number, but this is a count.", List.of());
        }
        double f = factor.get();
        return new CellNotation.Parsed(new ScoreValue.Range(
                Units.scaled(min, f),
                Units.scaled(low, f),
                high == null ? null : Units.scaled(high, f),
                max == null ? null : Units.scaled(max, f)));
    }

    private static boolean isWhole(double min, double low, @Nullable Double high, @Nullable Double max) {
        double fraction = min % 1 + low % 1 + (high == null ? 0 : high % 1) + (max == null ? 0 : max % 1);
        return fraction == 0;
    }
}
