package org.polyclave.wording.lead;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.tartarus.snowball.ext.EnglishStemmer;

/**
 * What the making of clauses knows of English: which words are of one stem (M. F. Porter's second stemmer, as Lucene has it),
 * which say nothing by themselves, what is a verb. Guesses err towards leaving words as their author wrote them.
 */
public final class English {
    private static final Set<String> EMPTY = Set.of(
            "a", "an", "and", "as", "at", "by", "from", "has", "have", "in", "is", "are", "it", "its", "like", "no",
            "not", "of", "on", "or", "than", "the", "their", "to", "when", "with", "without", "usually");

    /** Verbs with which names of characters begin: "rests in groove", "turns blue". */
    private static final Set<String> VERBS = Set.of(
            "bears",
            "becomes",
            "bleeds",
            "breaks",
            "bruises",
            "clasps",
            "closes",
            "covers",
            "curls",
            "ends",
            "exceeds",
            "extends",
            "exudes",
            "fades",
            "floats",
            "forms",
            "glows",
            "grows",
            "hangs",
            "joins",
            "lies",
            "meets",
            "opens",
            "overhangs",
            "overlaps",
            "peels",
            "points",
            "projects",
            "reaches",
            "rests",
            "runs",
            "shows",
            "sinks",
            "smells",
            "spreads",
            "stains",
            "stands",
            "sticks",
            "tears",
            "touches",
            "turns",
            "wraps");

    private static final Map<String, String> NEGATED =
            Map.of("is", "is not", "are", "are not", "can", "cannot", "has", "has no", "have", "have no");

    private static final Set<String> ADJECTIVES = Set.of(
            "hollow",
            "solid",
            "hard",
            "soft",
            "smooth",
            "rough",
            "flat",
            "round",
            "sticky",
            "hairy",
            "slimy",
            "shiny",
            "dull",
            "upright",
            "free",
            "open",
            "visible",
            "evergreen",
            "woody",
            "fleshy",
            "spiny",
            "prickly",
            "scaly",
            "waxy");

    private static final Pattern ADJECTIVE = Pattern.compile("\\p{L}{3,}(?:ed|ish|ous|oid|less|ful|able|ible|ing)");
    private static final Set<String> ODD_PLURALS =
            Set.of("teeth", "feet", "larvae", "antennae", "stamina", "setae", "radii");
    private static final List<String> NUMBERS =
            List.of("none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten");

    private English() {}

    public static String capital(String text) {
        return text.isEmpty() ? text : text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
    }

    /** Without the capital that it begins with. */
    public static String lower(String text) {
        return text.isEmpty() ? text : text.substring(0, 1).toLowerCase(Locale.ROOT) + text.substring(1);
    }

    /** Stem of a word: of "arms", "armed" and "unarmed" the same. */
    public static String stem(String word) {
        String lower = word.toLowerCase(Locale.ROOT);
        String positive = lower.length() > 5 && lower.startsWith("un") ? lower.substring(2) : lower;
        EnglishStemmer stemmer = new EnglishStemmer();
        stemmer.setCurrent(positive.equals("teeth") ? "tooth" : positive.equals("leaves") ? "leaf" : positive);
        stemmer.stem();
        return stemmer.getCurrent();
    }

    /** Stems of the words that say something, in their order. */
    public static List<String> stems(String text) {
        return words(text).stream()
                .filter(w -> !EMPTY.contains(w.toLowerCase(Locale.ROOT)))
                .map(English::stem)
                .toList();
    }

    static boolean shareStem(String first, String second) {
        return !Collections.disjoint(stems(first), stems(second));
    }

    static boolean isEmpty(String word) {
        return EMPTY.contains(word.toLowerCase(Locale.ROOT));
    }

    static List<String> words(String text) {
        return Stream.of(text.split("[^\\p{L}\\p{N}]+"))
                .filter(w -> !w.isEmpty())
                .toList();
    }

    static boolean beginsWithVerb(String text) {
        String first = first(text);
        return VERBS.contains(first) || NEGATED.containsKey(first);
    }

    static boolean beginsWithAdjective(String text) {
        return ADJECTIVES.contains(first(text))
                || ADJECTIVE.matcher(first(text)).matches();
    }

    private static String first(String text) {
        List<String> words = words(text);
        return words.isEmpty() ? "" : words.get(0).toLowerCase(Locale.ROOT);
    }

    /** "rests in the groove" → "does not rest in the groove". */
    static String negated(String clause) {
        String first = first(clause);
        String rest = clause.strip().substring(first.length());
        String known = NEGATED.get(first);
        if (known != null) {
            return known + rest;
        }
        String base = first.matches(".*(ch|sh|ss|x|is)es")
                ? first.substring(0, first.length() - (first.endsWith("ises") ? 1 : 2))
                : first.endsWith("ies") && first.length() > 4
                        ? first.substring(0, first.length() - 3) + "y"
                        : first.substring(0, first.length() - 1);
        return "does not " + base + rest;
    }

    static boolean isPlural(String word) {
        String lower = word.toLowerCase(Locale.ROOT);
        return ODD_PLURALS.contains(lower) || (lower.endsWith("s") && !lower.endsWith("ss") && lower.length() > 3);
    }

    /** Whole numbers to ten in words, others as they are. */
    static String number(double count) {
        return count == Math.rint(count) && count >= 0 && count < NUMBERS.size()
                ? NUMBERS.get((int) count)
                : org.polyclave.study.notation.NotationPrinter.number(count);
    }

    /** A text with its numbers to ten in digits. */
    public static String inDigits(String text) {
        String digits = text;
        for (int n = 0; n < NUMBERS.size(); n++) {
            digits = digits.replaceAll("(?i)\\b" + NUMBERS.get(n) + "\\b", String.valueOf(n));
        }
        return digits;
    }

    /**
     * "pale or dark brown", "with red, white or blue hairs": words that all share, before or after, are said once. More than
     * three are a list: "one of red, white, blue, green".
     */
    static String alternatives(List<String> all) {
        List<String> texts = all.stream().distinct().toList();
        if (texts.size() < 2) {
            return String.join("", texts);
        }
        List<List<String>> words =
                texts.stream().map(t -> List.of(t.split(" "))).toList();
        int shortest = words.stream().mapToInt(List::size).min().orElseThrow();
        int before = 0;
        while (before < shortest - 1 && same(words, before, true)) {
            before++;
        }
        int after = 0;
        while (after < shortest - 1 - before && same(words, after, false)) {
            after++;
        }
        List<String> own = new ArrayList<>();
        for (List<String> text : words) {
            own.add(String.join(" ", text.subList(before, text.size() - after)));
        }
        List<String> first = words.get(0);
        String lead = String.join(" ", first.subList(0, before));
        String end = String.join(" ", first.subList(first.size() - after, first.size()));
        String middle = own.size() > LIST
                ? "one of " + String.join(", ", own)
                : String.join(", ", own.subList(0, own.size() - 1)) + " or " + own.get(own.size() - 1);
        return (lead + ' ' + middle + ' ' + end).strip();
    }

    /** More alternatives than these read badly joined by "or". */
    private static final int LIST = 3;

    private static boolean same(List<List<String>> texts, int k, boolean fromStart) {
        List<String> first = texts.get(0);
        String word = fromStart ? first.get(k) : first.get(first.size() - 1 - k);
        return texts.stream()
                .allMatch(t -> t.get(fromStart ? k : t.size() - 1 - k).equals(word));
    }
}
