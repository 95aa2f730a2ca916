package org.polyclave.study.notation;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Dates are what spreadsheet programs make of ranges: "5-9" becomes the ninth of May, and is kept as a day. */
final class DateInCell {
    private static final Pattern DATE = Pattern.compile("\\d{4}-(\\d{2})-(\\d{2})");

    private static final int LENGTH = "2031-05-09".length();

    private DateInCell() {}

    static boolean isDate(String text) {
        return text.length() == LENGTH && DATE.matcher(text).matches();
    }

    /** Why a date is not taken, with the range that it may have been; empty for other texts. */
    static Optional<CellNotation.Rejected> rejected(String text) {
        Matcher date = DATE.matcher(text);
        if (text.length() != LENGTH || !date.matches()) {
            return Optional.empty();
        }
        int month = Integer.parseInt(date.group(1));
        int day = Integer.parseInt(date.group(2));
        String range = Math.min(month, day) + "–" + Math.max(month, day);
        return Optional.of(new CellNotation.Rejected(
                "'" + text + "' is a date: the spreadsheet program has probably made it of '" + month + "-" + day
                        + "' or '" + day + "-" + month + "'. Type what was there.",
                List.of(month == day ? String.valueOf(day) : range)));
    }
}
