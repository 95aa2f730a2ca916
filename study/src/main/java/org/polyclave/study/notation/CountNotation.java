package org.polyclave.study.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.StringJoiner;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.ScoreValue.Count;
import org.polyclave.study.model.ScoreValue.Frequency;

/**
 * Counts that are listed: {@code 4, 8}, {@code 4 or 8}, {@code usually 5, sometimes 3–4}. Their range spans them all, so that
 * nothing true is shut out; what has no word, or "usually", is its middle.
 */
final class CountNotation {
    private static final Map<String, Frequency> WORDS = Map.of(
            "always", Frequency.ALWAYS,
            "usually", Frequency.USUALLY,
            "mostly", Frequency.USUALLY,
            "sometimes", Frequency.SOMETIMES,
            "occasionally", Frequency.SOMETIMES,
            "rarely", Frequency.RARELY);
    private static final Pattern PIECE = Pattern.compile("(?:([a-z]+)\\s+)?(\\d{1,6})(?:\\s*[-–—]\\s*(\\d{1,6}))?");
    private static final Pattern BETWEEN = Pattern.compile("\\s*[,;]\\s*|\\s+or\\s+");
    /** More than anyone lists; each is a part of a distribution. */
    private static final int MOST = 20;

    private CountNotation() {}

    /** Whether a text in lower case is such a list, if perhaps a wrong one. */
    static boolean isListed(String text) {
        String[] pieces = BETWEEN.split(text);
        boolean worded = false;
        for (String piece : pieces) {
            Matcher matcher = PIECE.matcher(piece);
            if (!matcher.matches() || (matcher.group(1) != null && !WORDS.containsKey(matcher.group(1)))) {
                return false;
            }
            worded |= matcher.group(1) != null;
        }
        return worded || pieces.length > 1;
    }

    static CellNotation.ParseResult parse(String text) {
        List<Count> counts = new ArrayList<>();
        for (String piece : BETWEEN.split(text)) {
            Matcher matcher = PIECE.matcher(piece);
            if (matcher.matches()) {
                int from = Integer.parseInt(matcher.group(2));
                int to = matcher.group(3) == null ? from : Integer.parseInt(matcher.group(3));
                if (from > to) {
                    return new CellNotation.Rejected(
                            "The numbers of '" + piece + "' do not rise from left to right. Swap them.", List.of());
                }
                counts.add(new Count(from, to, frequency(matcher.group(1))));
            }
        }
        if (counts.size() > MOST) {
            return new CellNotation.Rejected("More than " + MOST + " counts in one cell. Write a range.", List.of());
        }
        if (counts.stream().noneMatch(CountNotation::isCommon)) {
            return new CellNotation.Rejected(
                    "'" + text + "' does not say what it is otherwise. Write for example 'usually 5, " + text + "'.",
                    List.of());
        }
        return new CellNotation.Parsed(range(counts));
    }

    private static Frequency frequency(@Nullable String word) {
        return word == null ? Frequency.PLAIN : WORDS.getOrDefault(word, Frequency.PLAIN);
    }

    /** "Usually 5" alone leaves open what it is otherwise: one more or less is taken as possible. */
    private static ScoreValue.Range range(List<Count> counts) {
        int open = counts.size() == 1 && counts.get(0).frequency() == Frequency.USUALLY ? 1 : 0;
        double min = Double.MAX_VALUE;
        double low = Double.MAX_VALUE;
        double high = 0;
        double max = 0;
        for (Count count : counts) {
            min = Math.min(min, Math.max(0, count.from() - open));
            max = Math.max(max, count.to() + open);
            if (isCommon(count)) {
                low = Math.min(low, count.from());
                high = Math.max(high, count.to());
            }
        }
        return new ScoreValue.Range(min, low, high, max, counts);
    }

    private static boolean isCommon(Count count) {
        return count.frequency() != Frequency.SOMETIMES && count.frequency() != Frequency.RARELY;
    }

    static String print(List<Count> counts) {
        StringJoiner text = new StringJoiner(", ");
        for (Count count : counts) {
            String word = count.frequency() == Frequency.PLAIN
                    ? ""
                    : count.frequency().name().toLowerCase(Locale.ROOT) + " ";
            text.add(word + count.from() + (count.to() > count.from() ? "–" + count.to() : ""));
        }
        return text.toString();
    }

    /** Whether a range is what its counts, as read here, span. */
    static boolean isConsistent(ScoreValue.Range range) {
        return range.counts().isEmpty()
                || (isListed(print(range.counts()))
                        && parse(print(range.counts())) instanceof CellNotation.Parsed parsed
                        && parsed.value().equals(range));
    }
}
