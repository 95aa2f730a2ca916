package org.polyclave.study.model;

import java.util.Locale;
import java.util.function.Predicate;

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

    /** That of a label, or another word where nothing of the label is a letter or digit. */
    public static String of(String label, String otherwise) {
        String slug = of(label);
        return slug.isEmpty() ? otherwise : slug;
    }

    /**
     * The slug itself, or with the first number from 2 on that nothing has yet.
     *
     * @param taken whether something has it; may note what it was asked for
     */
    public static String unused(String slug, Predicate<String> taken) {
        String unused = slug;
        for (int n = 2; taken.test(unused); n++) {
            unused = slug + "-" + n;
        }
        return unused;
    }
}
