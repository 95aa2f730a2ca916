package org.polyclave.files.nexus;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What the FORMAT command of a block says. */
final class NexusFormat {
    private static final Pattern SPAN = Pattern.compile("([0-9A-Za-z])[~-]([0-9A-Za-z])");

    boolean continuous;
    boolean interleave;
    boolean tokens;
    boolean labels = true;
    boolean respectCase;
    char missing = '?';
    char gap;
    char match;
    /** In this order where a file does not say which it uses: most that use more than 0 and 1 forget to. */
    private static final String USUAL = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ";

    String symbols = USUAL;
    List<String> items = List.of("AVERAGE");
    final Map<Character, String> equate = new HashMap<>();

    static NexusFormat read(NexusTokens in) {
        NexusFormat format = new NexusFormat();
        while (!in.take(";")) {
            format.readOne(in);
        }
        return format;
    }

    private void readOne(NexusTokens in) {
        String name = in.command();
        switch (name) {
            case "DATATYPE" -> dataType(in);
            case "RESPECTCASE" -> respectCase = true;
            case "MISSING" -> missing = value(in).charAt(0);
            case "GAP" -> gap = value(in).charAt(0);
            case "MATCHCHAR" -> match = value(in).charAt(0);
            case "SYMBOLS" -> symbols = spread(in);
            case "EQUATE" -> equate(value(in));
            case "INTERLEAVE" -> interleave = !in.take("=") || in.command().startsWith("Y");
            case "TOKENS" -> tokens = true;
            case "NOTOKENS" -> tokens = false;
            case "LABELS" -> labels = !in.take("=") || in.command().startsWith("L");
            case "NOLABELS" -> labels = false;
            case "ITEMS" ->
                items = List.of(value(in).toUpperCase(Locale.ROOT).strip().split("\\s+"));
            case "STATESFORMAT" -> value(in);
            case "TRANSPOSE" ->
                throw in.broken("Transposed matrices are not read. Write one taxon a line and remove TRANSPOSE.");
            default -> {
                if (in.take("=")) {
                    value(in);
                }
            }
        }
    }

    /** What stands between two symbols and a tilde or dash is meant, too: "0~9A~F", "0-9 A-F". */
    private static String spread(NexusTokens in) {
        Matcher spans = SPAN.matcher(value(in).replaceAll("\\s", ""));
        return spans.replaceAll(span -> {
            char from = span.group(1).charAt(0);
            char to = span.group(2).charAt(0);
            if (from > to) {
                throw in.broken("SYMBOLS has '" + span.group() + "', which runs backwards. Correct it.");
            }
            StringBuilder all = new StringBuilder();
            for (char c = from; c <= to; c++) {
                all.append(c);
            }
            return Matcher.quoteReplacement(all.toString());
        });
    }

    /** Whether a symbol means both that nobody knows and that the question makes no sense. */
    boolean saysBoth() {
        return gap != 0 && gap == missing;
    }

    private void dataType(NexusTokens in) {
        String type = value(in).toUpperCase(Locale.ROOT);
        if (!type.equals("STANDARD") && !type.equals("CONTINUOUS")) {
            throw in.broken("The data are of type " + type
                    + ". Only STANDARD and CONTINUOUS are characters of organisms that a key can ask for.");
        }
        continuous = type.equals("CONTINUOUS");
    }

    /** What stands after an equals sign: a word, or text in quotation marks or brackets. */
    private static String value(NexusTokens in) {
        in.take("=");
        String first = in.need("a value");
        if (first.equals("\"")) {
            return in.until('"');
        }
        if (first.equals("(")) {
            return in.until(')');
        }
        return first;
    }

    private void equate(String text) {
        var pairs = Pattern.compile("(\\S)\\s*=\\s*(\\([^)]*\\)|\\{[^}]*}|\\S)").matcher(text);
        while (pairs.find()) {
            equate.put(pairs.group(1).charAt(0), pairs.group(2));
        }
    }

    /** Number of the state that a symbol stands for, -1 if it stands for none. */
    int state(char symbol) {
        int exact = symbols.indexOf(symbol);
        return exact >= 0 || respectCase
                ? exact
                : symbols.toLowerCase(Locale.ROOT).indexOf(Character.toLowerCase(symbol));
    }
}
