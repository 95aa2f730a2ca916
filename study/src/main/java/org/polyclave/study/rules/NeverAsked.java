package org.polyclave.study.rules;

import java.util.regex.Pattern;

/** What Polyclave neither stores nor shows: taste, edibility and medicinal use. */
public final class NeverAsked {
    private static final Pattern HEADING =
            Pattern.compile("(?i).*\\b(taste|tasting|edib\\w*|edible|palatab\\w*|flavou?r|medicinal\\w*)\\b.*");

    private NeverAsked() {}

    /** Whether a column with this heading is set aside. */
    public static boolean isHeading(String heading) {
        return HEADING.matcher(heading).matches();
    }
}
