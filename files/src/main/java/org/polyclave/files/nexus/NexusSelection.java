package org.polyclave.files.nexus;

import java.util.BitSet;
import java.util.HashSet;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Some of a file's characters, told as NEXUS tells sets of them (Maddison, Swofford & Maddison 1997): numbers from 1, spans such
 * as {@code 5-12} or {@code 5-.} (to the last), every third by <code>5-.\3</code>, names of sets, {@code all}; commas may stand
 * between them.
 */
final class NexusSelection {
    private static final Pattern SPAN = Pattern.compile("(\\d{1,7}|\\.)(?:-(\\d{1,7}|\\.))?");
    private static final Pattern AROUND_HYPHEN = Pattern.compile("(?<=[\\d.])\\s*-\\s*(?=[\\d.])");

    private final NexusOutline file;
    private final BitSet chosen = new BitSet();
    /** Sets that are being read: one that holds itself holds nothing more by that. */
    private final Set<String> open = new HashSet<>();

    private NexusSelection(NexusOutline file) {
        this.file = file;
    }

    /** Something in a selection that is not a character, and what to do. */
    static final class Wrong extends Exception {
        private static final long serialVersionUID = 1;

        Wrong(String sentence) {
            super(sentence);
        }
    }

    /** The characters, from 0. */
    static BitSet of(String text, NexusOutline file) throws Wrong {
        NexusSelection selection = new NexusSelection(file);
        selection.add(text);
        return selection.chosen;
    }

    /** Whether a token is the name of a set, and neither a number nor a sign. */
    static boolean isName(String token) {
        return !token.equals("\\") && !token.equals("-") && !SPAN.matcher(token).matches();
    }

    /** A name as it is written where blanks end it. */
    static String written(String name) {
        return name.matches("[\\p{L}\\p{N} ]+") ? name.replace(' ', '_') : "'" + name.replace("'", "''") + "'";
    }

    private void add(String text) throws Wrong {
        NexusTokens in = new NexusTokens(AROUND_HYPHEN.matcher(text).replaceAll("-"));
        try {
            for (Optional<String> token = in.next(); token.isPresent(); token = in.next()) {
                if (!token.get().equals(",") && !token.get().equals(";")) {
                    add(token.get(), in);
                }
            }
        } catch (NexusTokens.Broken broken) {
            throw new Wrong(String.valueOf(broken.getMessage()));
        }
    }

    private void add(String token, NexusTokens in) throws Wrong {
        Matcher span = SPAN.matcher(token);
        if (span.matches()) {
            int first = number(span.group(1));
            int last = span.group(2) == null ? first : number(span.group(2));
            if (first > last) {
                throw new Wrong("'" + token + "' ends before it begins. Write the smaller number first.");
            }
            int step = in.take("\\") ? step(in.need("a number")) : 1;
            for (int c = first; c <= last; c += step) {
                chosen.set(c - 1);
            }
            return;
        }
        Optional<String> set = file.sets().keySet().stream()
                .filter(s -> s.equalsIgnoreCase(token))
                .findFirst();
        if (set.isPresent()) {
            if (open.add(set.get())) {
                add(file.sets().getOrDefault(set.get(), ""));
                open.remove(set.get());
            }
        } else if (token.toUpperCase(Locale.ROOT).equals("ALL")) {
            chosen.set(0, file.characters());
        } else {
            throw new Wrong("'" + token + "' is neither a number, nor a span such as 1-300, nor "
                    + (file.sets().isEmpty() ? "a set: the file names none." : "one of the file's sets."));
        }
    }

    private int number(String text) throws Wrong {
        int number = text.equals(".") ? file.characters() : Integer.parseInt(text);
        if (number < 1 || number > file.characters()) {
            throw new Wrong("Character " + text + " does not exist: the file has " + file.characters() + ".");
        }
        return number;
    }

    private static int step(String text) throws Wrong {
        if (!text.matches("[1-9]\\d{0,5}")) {
            throw new Wrong("After a backslash stands how many characters to go on, as in 1-.\\3; '" + text
                    + "' is not such a number.");
        }
        return Integer.parseInt(text);
    }
}
