package org.polyclave.study.notation;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.polyclave.study.model.ScoreValue;

/** Months as people write them: "May–Jul, Sep"; a span may pass the turn of the year. */
public final class MonthNotation {
    private static final List<String> NAMES = List.of(
            "january",
            "february",
            "march",
            "april",
            "may",
            "june",
            "july",
            "august",
            "september",
            "october",
            "november",
            "december");

    private MonthNotation() {}

    private static final List<String> ROMAN =
            List.of("i", "ii", "iii", "iv", "v", "vi", "vii", "viii", "ix", "x", "xi", "xii");
    private static final Pattern ALL =
            Pattern.compile("(?i)all (the )?year( round)?|year[- ]?round|throughout the year|all months|every month");
    /** What is finer than a month is not kept. */
    private static final Pattern PART = Pattern.compile("(?i)^(early|mid|late|end of|beginning of)[- ]+");

    private static final Pattern MID = Pattern.compile("(?i)\\b(early|mid|late)-");

    static CellNotation.ParseResult parse(String text) {
        TreeSet<Integer> months = new TreeSet<>();
        if (ALL.matcher(text).matches()) {
            return new CellNotation.Parsed(new ScoreValue.Months(
                    IntStream.rangeClosed(1, NAMES.size()).boxed().toList()));
        }
        for (String part : text.split("[,;&]|\\band\\b")) {
            String[] ends = MID.matcher(part.strip())
                    .replaceAll("$1 ")
                    .split("(?i)\\s*[-‐‑–—−]\\s*|\\s+(?:to|until|till|through)\\s+");
            // A dash alone has no ends at all.
            int from = ends.length == 0 ? -1 : month(ends[0]);
            int to = ends.length == 2 ? month(ends[1]) : from;
            if (from < 0 || to < 0 || ends.length > 2) {
                return new CellNotation.Rejected(
                        "'" + part.strip() + "' is not a month or span of months. Write for example 'May–Jul, Sep'.",
                        List.of());
            }
            for (int m = from; ; m = m % 12 + 1) {
                months.add(m);
                if (m == to) {
                    break;
                }
            }
        }
        return new CellNotation.Parsed(new ScoreValue.Months(List.copyOf(months)));
    }

    /** Number of a month by its number, in Arabic or Roman figures, or an unambiguous beginning of at least three letters; or -1. */
    private static int month(String name) {
        String wanted = PART.matcher(name.strip()).replaceFirst("").toLowerCase(Locale.ROOT);
        wanted = wanted.endsWith(".") ? wanted.substring(0, wanted.length() - 1) : wanted;
        if (wanted.matches("0?[1-9]|1[0-2]")) {
            return Integer.parseInt(wanted);
        }
        if (ROMAN.contains(wanted)) {
            return ROMAN.indexOf(wanted) + 1;
        }
        for (int m = 0; m < NAMES.size(); m++) {
            if (wanted.length() >= 3 && NAMES.get(m).startsWith(wanted)) {
                return m + 1;
            }
        }
        return -1;
    }

    /** Short names with spans joined: "May–Jul, Sep". */
    public static String print(List<Integer> ascending) {
        return spans(ascending).stream()
                .map(s -> shortName(s.from()) + (s.to() == s.from() ? "" : "–" + shortName(s.to())))
                .collect(Collectors.joining(", "));
    }

    /** In words, for sentences: "May to July and September", "June and July", "all year". */
    public static String words(List<Integer> ascending) {
        if (ascending.size() == NAMES.size()) {
            return "all year";
        }
        List<String> texts = new ArrayList<>();
        for (Span span : spans(ascending)) {
            String joint = span.to() == span.from() % NAMES.size() + 1 ? " and " : " to ";
            texts.add(longName(span.from()) + (span.to() == span.from() ? "" : joint + longName(span.to())));
        }
        int last = texts.size() - 1;
        return last < 1
                ? String.join("", texts)
                : String.join(", ", texts.subList(0, last)) + " and " + texts.get(last);
    }

    /** Months that follow one another. */
    private record Span(int from, int to) {}

    private static List<Span> spans(List<Integer> ascending) {
        List<Integer> months = sinceGap(ascending);
        List<Span> spans = new ArrayList<>();
        for (int k = 0; k < months.size(); k++) {
            int end = k;
            while (end + 1 < months.size() && months.get(end + 1) == months.get(end) % 12 + 1) {
                end++;
            }
            spans.add(new Span(months.get(k), months.get(end)));
            k = end;
        }
        return spans;
    }

    /** The year is a circle: winter is "Nov–Feb", not "Jan–Feb, Nov–Dec". */
    private static List<Integer> sinceGap(List<Integer> months) {
        int gap = months.size();
        while (gap > 0
                && months.contains(1)
                && months.contains(12)
                && months.get(gap - 1) == 12 - months.size() + gap) {
            gap--;
        }
        List<Integer> turned = new ArrayList<>(months);
        Collections.rotate(turned, months.size() - gap);
        return turned;
    }

    private static String shortName(int month) {
        return longName(month).substring(0, 3);
    }

    private static String longName(int month) {
        String name = NAMES.get(month - 1);
        return name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1);
    }
}
