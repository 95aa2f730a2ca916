package org.polyclave.study.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Reads coordinates as {@link Coordinates} describes them. */
final class CoordinateParser {
    private static final String ONE =
            "([-+]?\\d{1,3}(?:[.,]\\d+)?)\\s*°?(?:\\s*(\\d{1,2}(?:[.,]\\d+)?)\\s*'(?:\\s*(\\d{1,2}(?:[.,]\\d+)?)\\s*\")?)?\\s*([NSEW])?";
    private static final Pattern BOTH = Pattern.compile("(?:" + ONE + ")(\\s*[,;/]\\s*|\\s+)(?:" + ONE + ")");
    /** Half of a pair as likely as both of it. */
    private static final Pattern DECIMAL_COMMA = Pattern.compile("[-+]?\\d+,\\d+");

    private CoordinateParser() {}

    static Coordinates parse(String text) {
        String plain = text.strip()
                .toUpperCase(Locale.ROOT)
                .replace('−', '-')
                .replace('º', '°')
                .replace('’', '\'')
                .replace('′', '\'')
                .replace('″', '"')
                .replace('”', '"')
                .replace("''", "\"");
        Matcher matcher = BOTH.matcher(plain);
        if (!matcher.matches() || DECIMAL_COMMA.matcher(plain).matches()) {
            return new Coordinates.Rejected(
                    "'" + text + "' are not coordinates. Write latitude and longitude, for example '54.1234, -2.345' "
                            + "or '54°07'24\"N 2°20'42\"W'.");
        }
        List<Angle> angles = new ArrayList<>();
        for (int first : new int[] {1, 6}) {
            Angle angle = Angle.of(matcher, first);
            if (angle.minutes >= 60 || angle.seconds >= 60) {
                return new Coordinates.Rejected(
                        "'" + text + "' has sixty or more minutes or seconds. Degrees with decimals need none.");
            }
            angles.add(angle);
        }
        return place(text, angles.get(0), angles.get(1));
    }

    private static Coordinates place(String text, Angle first, Angle second) {
        boolean lettered = !first.letter.isEmpty() && !second.letter.isEmpty();
        if (first.letter.isEmpty() != second.letter.isEmpty()
                || (lettered && first.isLatitude() == second.isLatitude())) {
            return new Coordinates.Rejected(
                    "'" + text + "' does not say which is latitude. Give one N or S and the other E or W, or neither.");
        }
        boolean turned = lettered && !first.isLatitude();
        double latitude = (turned ? second : first).degrees();
        double longitude = (turned ? first : second).degrees();
        if (Math.abs(latitude) > 90) {
            return new Coordinates.Rejected("'" + text + "': a latitude is at most 90° and not " + latitude + "°."
                    + (Math.abs(longitude) <= 90 ? " Are latitude and longitude swapped?" : " Check it."));
        }
        return Math.abs(longitude) > 180
                ? new Coordinates.Rejected(
                        "'" + text + "': a longitude is at most 180° and not " + longitude + "°. Check it.")
                : new Coordinates.Place(latitude, longitude);
    }

    /** One of the two as it is written. */
    private record Angle(double whole, double minutes, double seconds, String letter, boolean negative) {
        private static Angle of(Matcher matcher, int first) {
            String whole = matcher.group(first);
            String letter = matcher.group(first + 3) == null ? "" : matcher.group(first + 3);
            boolean negative = whole.startsWith("-") || letter.equals("S") || letter.equals("W");
            return new Angle(
                    Math.abs(number(whole)),
                    number(matcher.group(first + 1)),
                    number(matcher.group(first + 2)),
                    letter,
                    negative);
        }

        private static double number(@Nullable String text) {
            return text == null ? 0 : Double.parseDouble(text.replace(',', '.'));
        }

        private boolean isLatitude() {
            return letter.equals("N") || letter.equals("S");
        }

        private double degrees() {
            double degrees = whole + minutes / 60 + seconds / 3600;
            return negative ? -degrees : degrees;
        }
    }
}
