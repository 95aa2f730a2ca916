package org.polyclave.study.model;

import java.util.Locale;
import java.util.Map;
import java.util.function.Predicate;

/**
 * Identifiers made of labels: lower case, runs of other characters to one hyphen. Signs that say something are spelled out: those
 * of the sexes, comparisons at the beginning, and plus and minus where there is nothing else.
 */
public final class Slug {
    private static final Map<String, String> AT_FIRST =
            Map.of(">", "over ", "<", "under ", "≥", "at least ", "≤", "at most ");
    private static final Map<String, String> ALONE = Map.of(
            "+",
            "plus",
            "++",
            "plus plus",
            "-",
            "minus",
            "–",
            "minus",
            "−",
            "minus",
            "±",
            "plus minus",
            "+/-",
            "plus minus");

    private Slug() {}

    public static String of(String label) {
        StringBuilder slug = new StringBuilder();
        boolean gap = false;
        String lower = spelled(label.strip()).toLowerCase(Locale.ROOT);
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

    private static String spelled(String label) {
        if (ALONE.containsKey(label)) {
            return ALONE.getOrDefault(label, label);
        }
        String first = label.isEmpty() ? "" : label.substring(0, 1);
        String text = AT_FIRST.containsKey(first) ? AT_FIRST.get(first) + label.substring(1) : label;
        return text.replace("♂", " male ").replace("♀", " female ");
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
