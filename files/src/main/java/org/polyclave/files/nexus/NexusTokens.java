package org.polyclave.files.nexus;

import java.util.Locale;
import java.util.Optional;

/** The tokens of a NEXUS file: words, quoted words, punctuation; comments in square brackets are passed over. */
final class NexusTokens {
    private static final String PUNCTUATION = "(){}/\\,;:=*\"`+<>";

    private final String text;
    private int at;
    private int line = 1;
    /** Whether a line ended before the token that was read last. */
    private boolean newLine;

    /** The file is broken at a line. */
    static final class Broken extends RuntimeException {
        private static final long serialVersionUID = 1;

        private final int line;

        Broken(int line, String sentence) {
            super(sentence);
            this.line = line;
        }

        int line() {
            return line;
        }
    }

    NexusTokens(String text) {
        this.text = text;
    }

    int line() {
        return line;
    }

    /** How much of the file is behind. */
    int position() {
        return at;
    }

    int length() {
        return text.length();
    }

    Broken broken(String sentence) {
        return new Broken(line, sentence);
    }

    boolean startedLine() {
        return newLine;
    }

    /** Passes spaces and comments; tells whether anything is left. */
    boolean skip() {
        newLine = false;
        while (at < text.length()) {
            char c = text.charAt(at);
            if (c == '[') {
                comment();
            } else if (Character.isWhitespace(c)) {
                advance();
            } else {
                return true;
            }
        }
        return false;
    }

    private void advance() {
        if (text.charAt(at) == '\n') {
            line++;
            newLine = true;
        }
        at++;
    }

    private void comment() {
        int start = line;
        int depth = 0;
        do {
            if (at >= text.length()) {
                throw new Broken(
                        start, "The comment that begins with '[' here does not end. Close it with ']', or remove it.");
            }
            char c = text.charAt(at);
            depth += c == '[' ? 1 : c == ']' ? -1 : 0;
            advance();
        } while (depth > 0);
    }

    /** The next token without taking it; empty at the end. */
    Optional<String> peek() {
        int oldAt = at;
        int oldLine = line;
        boolean oldNew = newLine;
        Optional<String> token = next();
        at = oldAt;
        line = oldLine;
        newLine = oldNew;
        return token;
    }

    /** The next token; a word's underscores are spaces. Empty at the end. */
    Optional<String> next() {
        if (!skip()) {
            return Optional.empty();
        }
        char c = text.charAt(at);
        if (c == '\'') {
            return Optional.of(quoted());
        }
        if (PUNCTUATION.indexOf(c) >= 0) {
            at++;
            return Optional.of(String.valueOf(c));
        }
        int from = at;
        while (at < text.length() && isWord(text.charAt(at))) {
            at++;
        }
        return Optional.of(text.substring(from, at).replace('_', ' '));
    }

    private static boolean isWord(char c) {
        return !Character.isWhitespace(c) && PUNCTUATION.indexOf(c) < 0 && c != '[' && c != '\'';
    }

    private String quoted() {
        int start = line;
        StringBuilder word = new StringBuilder();
        at++;
        while (true) {
            if (at >= text.length()) {
                throw new Broken(start, "A name begins with an apostrophe here, but does not end with one.");
            }
            char c = text.charAt(at);
            if (c == '\'' && at + 1 < text.length() && text.charAt(at + 1) == '\'') {
                word.append('\'');
                at += 2;
            } else if (c == '\'') {
                at++;
                return word.toString();
            } else {
                word.append(c);
                advance();
            }
        }
    }

    /** The next token, which must be there. */
    String need(String what) {
        return next().orElseThrow(() -> broken("The file ends where " + what + " is missing."));
    }

    /** Whether the next token is this one; it is taken if so. */
    boolean take(String token) {
        if (peek().filter(t -> t.equalsIgnoreCase(token)).isPresent()) {
            next();
            return true;
        }
        return false;
    }

    /** A command's name in capitals. */
    String command() {
        return need("a command").toUpperCase(Locale.ROOT);
    }

    void skipCommand() {
        while (!need("';'").equals(";")) {
            // What is not understood is passed over up to its semicolon.
        }
    }

    /** The next character of a matrix: never a space, a comment or the end. */
    char symbol() {
        if (!skip()) {
            throw broken("The file ends in the middle of the matrix. Close it with ';'.");
        }
        return text.charAt(at++);
    }

    /** The character that {@link #symbol} would give, or 0 at the end. */
    char peekSymbol() {
        return skip() ? text.charAt(at) : 0;
    }

    /** Text up to a closing mark on the same level; the opening one was taken. */
    String until(char closing) {
        int start = line;
        StringBuilder inside = new StringBuilder();
        while (at < text.length() && text.charAt(at) != closing) {
            inside.append(text.charAt(at));
            advance();
        }
        if (at >= text.length()) {
            throw new Broken(start, "'" + closing + "' is missing.");
        }
        at++;
        return inside.toString();
    }
}
