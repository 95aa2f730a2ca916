package org.polyclave.files.nexus;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.study.rules.Limits;

/** One CHARACTERS or DATA block as it stands in the file. */
final class NexusMatrix {
    private final NexusReader file;
    /** Characters of the blocks before. */
    private final int before;

    private NexusFormat format = new NexusFormat();
    private int count = -1;
    private int declaredTaxa = -1;
    private final Map<Integer, String> labels = new HashMap<>();
    private final Map<Integer, List<String>> stateLabels = new HashMap<>();
    /** By character, its place among those that are kept; -1 for the others. */
    private int[] slots = {};

    private final Map<Integer, TaxonEntries> rows = new HashMap<>();

    /** What is read of a taxon. */
    private static final class TaxonEntries {
        /** Entries in the order of the characters that are wanted. */
        private final List<Entry> kept = new ArrayList<>();
        /** Characters that were read, also those that nobody wants. */
        private int read;
    }

    /**
     * What a taxon shows for a character.
     *
     * @param kind what it is
     * @param states numbers of states of a standard character
     * @param numbers numbers of a continuous character, in the order of the items
     */
    record Entry(Kind kind, List<Integer> states, List<Double> numbers) {
        static final Entry MISSING = new Entry(Kind.MISSING, List.of(), List.of());
        static final Entry GAP = new Entry(Kind.GAP, List.of(), List.of());
    }

    enum Kind {
        MISSING,
        GAP,
        /** Individuals vary. */
        VARY,
        /** One of these. */
        EITHER
    }

    private NexusMatrix(NexusReader file, int before) {
        this.file = file;
        this.before = before;
    }

    /** @param before characters of the blocks before */
    static NexusMatrix read(NexusTokens in, NexusReader file, int before) {
        NexusMatrix matrix = new NexusMatrix(file, before);
        boolean seen = false;
        while (true) {
            String command = in.command();
            switch (command) {
                case "END", "ENDBLOCK" -> {
                    in.take(";");
                    if (!seen) {
                        throw in.broken("The block has no MATRIX.");
                    }
                    return matrix;
                }
                case "DIMENSIONS" -> matrix.dimensions(in);
                case "FORMAT" -> matrix.format = NexusFormat.read(in);
                case "CHARLABELS" -> matrix.charLabels(in);
                case "STATELABELS" -> matrix.stateLabels(in);
                case "CHARSTATELABELS" -> matrix.charStateLabels(in);
                case "TAXLABELS" -> {
                    while (!in.take(";")) {
                        file.addTaxon(in.need("a taxon"), in);
                    }
                }
                case "ELIMINATE" ->
                    throw in.broken(
                            "ELIMINATE leaves characters out. Remove them from the matrix, and remove the command.");
                case "MATRIX" -> {
                    matrix.matrix(in);
                    seen = true;
                }
                case ";" -> {
                    // Somebody wrote one too many.
                }
                default -> in.skipCommand();
            }
        }
    }

    NexusFormat format() {
        return format;
    }

    int count() {
        return count;
    }

    /** Number of a character in the file, from 1. */
    int number(int character) {
        return before + character + 1;
    }

    boolean isKept(int character) {
        return slots[character] >= 0;
    }

    String label(int character) {
        return labels.getOrDefault(character, "");
    }

    List<String> states(int character) {
        return stateLabels.getOrDefault(character, List.of());
    }

    Entry entry(int taxon, int character) {
        TaxonEntries row = rows.get(taxon);
        int slot = slots[character];
        return row == null || slot < 0 || slot >= row.kept.size() ? Entry.MISSING : row.kept.get(slot);
    }

    private void dimensions(NexusTokens in) {
        Map<String, Integer> sizes = NexusReader.dimensions(in);
        count = sizes.getOrDefault("NCHAR", -1);
        declaredTaxa = sizes.getOrDefault("NTAX", -1);
        if (count < 1) {
            throw in.broken("DIMENSIONS must say how many characters there are: NCHAR=.");
        }
        slots = new int[count];
        int kept = 0;
        for (int c = 0; c < count; c++) {
            slots[c] = file.isWanted(before + c) ? kept++ : -1;
        }
    }

    private void charLabels(NexusTokens in) {
        for (int c = 0; !in.take(";"); c++) {
            labels.put(c, in.need("a label"));
        }
    }

    private int number(NexusTokens in) {
        String number = in.need("the number of a character");
        if (!number.matches("\\d{1,6}") || Integer.parseInt(number) < 1 || Integer.parseInt(number) > count) {
            throw in.broken("'" + number + "' is not a number of a character from 1 to " + count + ".");
        }
        return Integer.parseInt(number) - 1;
    }

    private void stateLabels(NexusTokens in) {
        while (!in.take(";")) {
            states(number(in), in);
            in.take(",");
        }
    }

    private void states(int character, NexusTokens in) {
        List<String> names = new ArrayList<>();
        while (in.peek().filter(t -> !t.equals(",") && !t.equals(";")).isPresent()) {
            names.add(in.need("a state"));
        }
        stateLabels.put(character, names);
    }

    private void charStateLabels(NexusTokens in) {
        while (!in.take(";")) {
            int character = number(in);
            if (in.peek()
                    .filter(t -> !t.equals("/") && !t.equals(",") && !t.equals(";"))
                    .isPresent()) {
                labels.put(character, in.need("a label"));
            }
            if (in.take("/")) {
                states(character, in);
            }
            in.take(",");
        }
    }

    private void matrix(NexusTokens in) {
        if (count < 0) {
            throw in.broken("DIMENSIONS with NCHAR= must stand before MATRIX.");
        }
        boolean known = file.taxonCount() > 0;
        int row = 0;
        while (!in.take(";")) {
            int taxon = format.labels ? taxonOfRow(in, known) : row % Math.max(1, file.taxonCount());
            file.readUpTo(in);
            readRow(in, taxon);
            row++;
        }
        for (int taxon = 0; taxon < file.taxonCount(); taxon++) {
            int found = readOf(taxon);
            if (rows.containsKey(taxon) && found != count) {
                throw in.broken("'" + file.taxonName(taxon) + "' has " + found + " entries, but NCHAR says " + count
                        + ". Correct the row or NCHAR.");
            }
        }
        if (declaredTaxa >= 0 && declaredTaxa != rows.size()) {
            throw in.broken("NTAX says " + declaredTaxa + " taxa, but the matrix has " + rows.size()
                    + ". Correct NTAX or the matrix.");
        }
    }

    private int taxonOfRow(NexusTokens in, boolean known) {
        String label = in.need("a taxon");
        int line = in.line();
        return file.taxon(label).orElseGet(() -> {
            if (known) {
                throw new NexusTokens.Broken(
                        line,
                        "'" + label
                                + "' is not a taxon of the TAXA block. Correct its name, or the row before it, which may have too many entries.");
            }
            return file.addTaxon(label, in);
        });
    }

    private void readRow(NexusTokens in, int taxon) {
        TaxonEntries row = rows.computeIfAbsent(taxon, t -> new TaxonEntries());
        int readBefore = row.read;
        if (readBefore >= count) {
            throw in.broken("'" + file.taxonName(taxon) + "' has more than the " + count
                    + " entries that NCHAR says, or occurs twice.");
        }
        while (row.read < count) {
            char next = in.peekSymbol();
            boolean lineEnded = in.startedLine();
            if (next == ';' || next == 0 || (format.interleave && lineEnded && row.read > readBefore)) {
                return;
            }
            Entry entry = format.continuous ? numbers(in) : entry(in, taxon, row.read);
            if (isKept(row.read)) {
                row.kept.add(entry);
            }
            row.read++;
        }
        char next = in.peekSymbol();
        boolean goesOn = !in.startedLine() && next != ';' && next != 0;
        if (goesOn && !beginsRow(in)) {
            throw in.broken("'" + file.taxonName(taxon) + "' has more entries than the " + count
                    + " that NCHAR says. Correct the row or NCHAR.");
        }
    }

    private int readOf(int taxon) {
        TaxonEntries row = rows.get(taxon);
        return row == null ? 0 : row.read;
    }

    /** Rows need not stand on lines of their own: whether a taxon whose row is not complete comes next. */
    private boolean beginsRow(NexusTokens in) {
        return in.peek().flatMap(file::taxon).filter(t -> readOf(t) < count).isPresent();
    }

    private Entry entry(NexusTokens in, int taxon, int character) {
        if (format.tokens) {
            return token(in, taxon, character);
        }
        char symbol = in.symbol();
        if (symbol == '(' || symbol == '{') {
            return several(in, in.until(symbol == '(' ? ')' : '}'), symbol == '(' ? Kind.VARY : Kind.EITHER);
        }
        return single(in, symbol, taxon, character);
    }

    private Entry single(NexusTokens in, char symbol, int taxon, int character) {
        if (symbol == format.missing) {
            return Entry.MISSING;
        }
        if (symbol == format.gap && format.gap != 0) {
            return Entry.GAP;
        }
        if (symbol == format.match && format.match != 0) {
            if (taxon == 0) {
                throw in.broken("The first taxon has nothing to match with '" + symbol + "'.");
            }
            return entry(0, character);
        }
        String equal = format.equate.get(symbol);
        if (equal != null && equal.length() > 2) {
            Kind kind = equal.charAt(0) == '(' ? Kind.VARY : Kind.EITHER;
            return several(in, equal.substring(1, equal.length() - 1), kind);
        }
        return new Entry(Kind.VARY, List.of(state(in, equal == null ? symbol : equal.charAt(0))), List.of());
    }

    private int state(NexusTokens in, char symbol) {
        int state = format.state(symbol);
        if (state < 0) {
            throw in.broken("'" + symbol + "' is not one of the symbols \"" + format.symbols
                    + "\". Correct it, or add it to SYMBOLS in FORMAT.");
        }
        if (state >= Limits.STATES) {
            throw in.broken("A character has at most " + Limits.STATES + " states; '" + symbol + "' is one more.");
        }
        return state;
    }

    private Entry several(NexusTokens in, String inside, Kind kind) {
        List<Integer> states = new ArrayList<>();
        String symbols = inside.replaceAll("[\\s,]", "");
        for (int k = 0; k < symbols.length(); k++) {
            if (symbols.charAt(k) == '~' && k > 0 && k + 1 < symbols.length()) {
                for (int s = states.get(states.size() - 1) + 1; s < state(in, symbols.charAt(k + 1)); s++) {
                    states.add(s);
                }
            } else {
                states.add(state(in, symbols.charAt(k)));
            }
        }
        List<Integer> distinct = states.stream().distinct().toList();
        if (distinct.isEmpty()) {
            throw in.broken("There is nothing between the brackets.");
        }
        return new Entry(kind, distinct, List.of());
    }

    /** With TOKENS, entries are names of states. */
    private Entry token(NexusTokens in, int taxon, int character) {
        String first = in.need("an entry");
        if (first.equals("(") || first.equals("{")) {
            List<Integer> states = new ArrayList<>();
            String closing = first.equals("(") ? ")" : "}";
            while (!in.take(closing)) {
                states.add(named(in, in.need(closing), character));
            }
            return new Entry(first.equals("(") ? Kind.VARY : Kind.EITHER, states, List.of());
        }
        boolean special = first.length() == 1
                && (first.charAt(0) == format.missing
                        || first.charAt(0) == format.gap
                        || first.charAt(0) == format.match);
        return special
                ? single(in, first.charAt(0), taxon, character)
                : new Entry(Kind.VARY, List.of(named(in, first, character)), List.of());
    }

    private int named(NexusTokens in, String name, int character) {
        for (int s = 0; s < states(character).size(); s++) {
            if (states(character).get(s).equalsIgnoreCase(name)) {
                return s;
            }
        }
        throw in.broken("'" + name + "' is not a state of character " + (character + 1)
                + ". Correct it, or add it to its state labels.");
    }

    private Entry numbers(NexusTokens in) {
        String first = in.need("a number");
        if (first.length() == 1 && first.charAt(0) == format.missing) {
            return Entry.MISSING;
        }
        if (first.length() == 1 && format.gap != 0 && first.charAt(0) == format.gap) {
            return Entry.GAP;
        }
        List<Double> numbers = new ArrayList<>();
        if (first.equals("(")) {
            while (!in.take(")")) {
                numbers.add(number(in, in.need(")")));
            }
        } else {
            numbers.add(number(in, first));
        }
        return new Entry(Kind.VARY, List.of(), numbers);
    }

    private static double number(NexusTokens in, String text) {
        try {
            double number = Double.parseDouble(text);
            if (number >= 0 && number < 1e12) {
                return number;
            }
        } catch (NumberFormatException none) {
            // Told below, together with numbers out of range.
        }
        throw in.broken("'" + text + "' is not a number of 0 or more.");
    }
}
