package org.polyclave.files.table;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.DateTimeParseException;
import java.time.format.ResolverStyle;
import java.util.List;
import java.util.Locale;

/** Days as people write them, where there is one way to read them: "4.5.2031", "4 May 2031", "4 Sept. 2031". */
final class TypedDate {
    private static final List<DateTimeFormatter> FORMS = List.of(of("d.M.uuuu"), of("d MMM uuuu"), of("d MMMM uuuu"));

    private TypedDate() {}

    private static DateTimeFormatter of(String pattern) {
        return new DateTimeFormatterBuilder()
                .parseCaseInsensitive()
                .appendPattern(pattern)
                .toFormatter(Locale.ENGLISH)
                .withResolverStyle(ResolverStyle.STRICT);
    }

    /** As ISO 8601; what can be read in two ways, or in none, stays as it is for others to refuse. */
    static String iso(String text) {
        String plain = text.replaceAll("(?<=\\p{L})\\.", "").replaceAll("(?i)\\bsept\\b", "Sep");
        for (DateTimeFormatter form : FORMS) {
            try {
                return LocalDate.parse(plain.strip(), form).toString();
            } catch (DateTimeParseException another) {
                // The next form may fit.
            }
        }
        return text;
    }
}
