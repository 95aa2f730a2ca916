package org.polyclave.study.notation;

import java.util.Locale;
import java.util.regex.Pattern;

/**
 * A text with numbers as the notation of ranges has it: small letters, one kind of dash and of prime, fractions in figures, feet
 * with inches as inches, pounds with ounces as ounces, "5 to 9" as "5 - 9". Time linear in the text; most texts stay as they are.
 */
final class NumberText {
    private static final String DECIMAL = "(\\d+(?:[.,]\\d+)?)";
    private static final Pattern FEET = Pattern.compile(
            "(\\d+)\\s*(?:ft\\.?|feet|foot|')\\s*" + DECIMAL + "\\s*(?:in\\.?|inch|inches|\"|'')(?![\\p{L}\\d])");
    private static final Pattern POUNDS =
            Pattern.compile("(\\d+)\\s*(?:lbs?\\.?|pounds?)\\s*" + DECIMAL + "\\s*(?:oz\\.?|ounces?)(?![\\p{L}\\d])");
    private static final Pattern TO = Pattern.compile("(?<=[\\d\\p{L}.\"'°%])(?<!\\bup)\\s+to\\s+(?=[\\d(.])");
    private static final double INCHES = 12;
    private static final double OUNCES = 16;

    private NumberText() {}

    /** Whether a text is made of digits and what stands between and around them, so that it needs no care. */
    static boolean isBare(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if ((c < '0' || c > '9') && "-–.() ".indexOf(c) < 0) {
                return false;
            }
        }
        return true;
    }

    static String of(String text) {
        StringBuilder plain = new StringBuilder();
        String lower = text.toLowerCase(Locale.ROOT);
        for (int i = 0; i < lower.length(); i++) {
            char c = lower.charAt(i);
            switch (c) {
                case '‐', '‑', '‒', '–', '—', '―', '−' -> plain.append('-');
                case '\u00a0', '\u2007', '\u2009', '\u202f' -> plain.append(' ');
                case '″', '”', '“' -> plain.append('"');
                case '′', '’', '‘' -> plain.append('\'');
                default -> {
                    String fraction = c < 128 ? "" : fraction(c);
                    boolean mixed = !fraction.isEmpty()
                            && !plain.isEmpty()
                            && Character.isDigit(plain.charAt(plain.length() - 1));
                    plain.append(mixed ? " " : "").append(fraction.isEmpty() ? String.valueOf(c) : fraction);
                }
            }
        }
        String spelled = inSmaller(inSmaller(plain.toString(), FEET, INCHES, "in"), POUNDS, OUNCES, "oz");
        return TO.matcher(spelled).replaceAll(" - ").strip();
    }

    private static String fraction(char c) {
        return switch (c) {
            case '½' -> "1/2";
            case '¼' -> "1/4";
            case '¾' -> "3/4";
            case '⅓' -> "1/3";
            case '⅔' -> "2/3";
            case '⅛' -> "1/8";
            case '⅜' -> "3/8";
            case '⅝' -> "5/8";
            case '⅞' -> "7/8";
            default -> "";
        };
    }

    /** "5 ft 6 in" is 66 in. */
    private static String inSmaller(String text, Pattern pattern, double times, String unit) {
        return pattern.matcher(text)
                .replaceAll(m -> NotationPrinter.number(Double.parseDouble(m.group(1)) * times + number(m.group(2)))
                        + " " + unit);
    }

    /** "4,5", "1/2", "1 1/2"; infinite or not a number where the divisor is 0. */
    static double number(String text) {
        String plain = text.replace(',', '.');
        int slash = plain.indexOf('/');
        if (slash < 0) {
            return Double.parseDouble(plain);
        }
        int space = plain.indexOf(' ');
        double whole = space < 0 ? 0 : Double.parseDouble(plain.substring(0, space));
        double part = Double.parseDouble(plain.substring(space + 1, slash));
        return whole + part / Double.parseDouble(plain.substring(slash + 1));
    }
}
