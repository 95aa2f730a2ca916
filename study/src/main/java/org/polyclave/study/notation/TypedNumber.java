package org.polyclave.study.notation;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.study.model.Units;

/**
 * A number as people type it: {@code 12.5}, {@code 12,5}, {@code 12.5 mm}, {@code 1/4 in}, {@code 1 3/8"}.
 *
 * @param number as typed, in its unit
 * @param step of the last digit that was typed, or of the fraction, in its unit
 * @param unit as typed; empty if none was
 */
public record TypedNumber(double number, BigDecimal step, String unit) {
    private static final Pattern NUMBER = Pattern.compile(
            "([-+]?)(?:(\\d+(?:[.,]\\d+)?|[.,]\\d+)(?:[eE]([-+]?\\d{1,3}))?|(?:(\\d+)\\s+)?(\\d+)/(\\d+))\\s*(\\p{L}[\\p{L}.]*|°|%|\"|″|''|'|′)?");

    /** Empty if the text is not a number. Negative and endless numbers are numbers: whoever asks says what is wrong with them. */
    public static Optional<TypedNumber> parse(String text) {
        Matcher matcher = NUMBER.matcher(text.strip());
        if (!matcher.matches()) {
            return Optional.empty();
        }
        String unit = matcher.group(7) == null ? "" : unit(matcher.group(7));
        int sign = matcher.group(1).equals("-") ? -1 : 1;
        if (matcher.group(2) == null) {
            return fraction(matcher, sign, unit);
        }
        int exponent = matcher.group(3) == null ? 0 : Integer.parseInt(matcher.group(3));
        BigDecimal value = new BigDecimal(matcher.group(2).replace(',', '.')).scaleByPowerOfTen(exponent);
        return Optional.of(new TypedNumber(sign * value.doubleValue(), value.ulp(), unit));
    }

    private static Optional<TypedNumber> fraction(Matcher matcher, int sign, String unit) {
        BigDecimal parts = new BigDecimal(matcher.group(6));
        if (parts.signum() == 0) {
            return Optional.empty();
        }
        BigDecimal whole = new BigDecimal(matcher.group(4) == null ? "0" : matcher.group(4));
        BigDecimal part = new BigDecimal(matcher.group(5));
        double number = whole.multiply(parts).add(part).doubleValue() / parts.doubleValue();
        return Optional.of(new TypedNumber(sign * number, BigDecimal.ONE.divide(parts, MathContext.DECIMAL64), unit));
    }

    private static String unit(String typed) {
        return Units.usual(typed.replace('″', '"').replace('′', '\''));
    }
}
