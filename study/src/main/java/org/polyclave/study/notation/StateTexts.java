package org.polyclave.study.notation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.ScoreValue.Combination;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;

/**
 * A cell with states taken apart: at commas, semicolons, plus signs and slashes, except those within the label of a state, which
 * is matched whole.
 *
 * @param combination how one shows them; null where plus signs and slashes are mixed
 */
record StateTexts(List<String> parts, @Nullable Combination combination) {
    private static final String SEPARATORS = ",;+/";
    private static final String FREQUENCY = "(?:always|usually|sometimes|rarely|mistaken(?: for)?)\\s+";
    /** What may stand before the label of a state. */
    private static final Pattern BEFORE = Pattern.compile("(?i)\\s*(?:" + FREQUENCY + ")?");

    private static final Pattern FIRST = Pattern.compile("(?i)^" + FREQUENCY);

    /** A part without the word that says how often. */
    static String withoutFrequency(String part) {
        return FIRST.matcher(part).replaceFirst("").strip();
    }

    static StateTexts of(String text, StudyCharacter character) {
        // Longer ones first: "white/cream spotted" is not "white/cream" and more.
        List<String> labels = character.states().stream()
                .map(StudyState::label)
                .filter(l -> l.chars().anyMatch(c -> SEPARATORS.indexOf(c) >= 0))
                .sorted(Comparator.comparingInt(String::length).reversed())
                .toList();
        List<String> parts = new ArrayList<>();
        StringBuilder part = new StringBuilder();
        boolean plus = false;
        boolean slash = false;
        for (int i = 0; i < text.length(); ) {
            int end = !labels.isEmpty() && BEFORE.matcher(part).matches() ? labelEnd(text, i, labels) : i;
            if (end > i) {
                part.append(text, i, end);
                i = end;
                continue;
            }
            char sign = text.charAt(i++);
            if (SEPARATORS.indexOf(sign) < 0) {
                part.append(sign);
                continue;
            }
            plus |= sign == '+';
            slash |= sign == '/';
            parts.add(part.toString().strip());
            part.setLength(0);
        }
        // A separator at the end separates nothing.
        if (!part.toString().isBlank() || parts.isEmpty()) {
            parts.add(part.toString().strip());
        }
        Combination combination = plus ? Combination.BOTH : slash ? Combination.EITHER : Combination.VARY;
        return new StateTexts(parts, plus && slash ? null : combination);
    }

    /** Where the label that begins at {@code i} ends, if one does and nothing else follows it in its part. */
    private static int labelEnd(String text, int i, List<String> labels) {
        for (String label : labels) {
            int end = i + label.length();
            if (text.regionMatches(true, i, label, 0, label.length())) {
                int next = end;
                while (next < text.length() && text.charAt(next) == ' ') {
                    next++;
                }
                if (next == text.length() || SEPARATORS.indexOf(text.charAt(next)) >= 0) {
                    return end;
                }
            }
        }
        return i;
    }
}
