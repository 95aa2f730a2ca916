package org.polyclave.study.model;

import java.util.Locale;

/** Identifiers made of labels: lower case, runs of other characters to one hyphen. */
public final class Slug {
    private Slug() {}

    public static String of(String label) {
        StringBuilder slug = new StringBuilder();
        boolean gap = false;
        String lower = label.toLowerCase(Locale.ROOT);
        for (int i = 0; i < lower.length(); ) {
            int letter = lower.codePointAt(i);
            i += Character.charCount(letter);
            if (Character.isLetterOrDigit(letter)) {
                if (gap && !slug.isEmpty()) {
                    slug.append('-');
                }
                slug.appendCodePoint(letter);
                gap = false;
            } else {
                gap = true;
            }
        }
        return slug.toString();
    }
}
