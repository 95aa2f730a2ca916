package org.polyclave.files.table;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What people write behind a score: "toothed (young ones)", "3.2*", "yes!", "toothed ?".
 *
 * @param text the score alone
 */
record CellRemarks(String text, String note, boolean doubtful) {
    /** A bracket with a word in it is a remark; one with numbers belongs to a range. */
    private static final Pattern REMARK = Pattern.compile(
            "\\s*(?:\\(([^()]*\\p{L}{3,}[^()]*)\\)|\\[([^\\[\\]]+)]|;\\s*(\\p{L}{3,}.*)|([*†‡§!¹²³⁴⁵⁶⁷⁸⁹]+))\\s*$");

    static CellRemarks of(String original) {
        String text = original.strip();
        // Nearly all end in a letter or digit, and have nothing behind them.
        if (text.isEmpty()
                || (Character.isLetterOrDigit(text.codePointBefore(text.length())) && text.indexOf(';') < 0)) {
            return new CellRemarks(text, "", false);
        }
        String note = "";
        Matcher remark = REMARK.matcher(text);
        if (remark.find() && remark.start() > 0) {
            note = text.substring(remark.start()).strip();
            text = text.substring(0, remark.start()).strip();
        }
        boolean doubtful = text.length() > 1 && text.endsWith("?");
        if (doubtful) {
            text = text.substring(0, text.length() - 1).strip();
        }
        return new CellRemarks(text, note, doubtful);
    }
}
