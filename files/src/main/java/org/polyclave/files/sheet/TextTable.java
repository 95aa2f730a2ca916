package org.polyclave.files.sheet;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.study.rules.Problem;

/** Tables as text: CSV with comma or semicolon, and TSV. */
public final class TextTable {
    /** Lines that are looked at to tell the separator. */
    private static final int SAMPLE = 12;
    /** Signs that people put between cells. */
    private static final String SEPARATORS = ",;\t|";

    private TextTable() {}

    static Sheet read(String text, String fileName, List<Problem> problems, ReadingWatch watch) {
        char separator = separator(text, fileName);
        CSVFormat format = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(separator)
                .setIgnoreEmptyLines(false)
                .get();
        List<List<String>> cells = new ArrayList<>();
        List<Integer> lines = new ArrayList<>();
        try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
            for (CSVRecord row : parser) {
                watch.at(row.getCharacterPosition(), text.length());
                List<String> values = new ArrayList<>();
                for (String value : row) {
                    values.add(unquoted(value.strip()));
                }
                boolean blank = values.stream().allMatch(String::isEmpty);
                if (!blank) {
                    cells.add(values);
                    lines.add((int) row.getRecordNumber());
                }
            }
        } catch (IOException | UncheckedIOException | IllegalStateException broken) {
            problems.add(
                    Problem.file(
                            "After row " + (lines.isEmpty() ? 0 : lines.get(lines.size() - 1))
                                    + " a quotation mark is not closed, or something follows one. Correct the quotation marks in the next row."));
        }
        uneven(cells, lines, separator, problems);
        return Sheet.ofLines(cells, lines);
    }

    /** Lines with fewer cells than the others: they may be cut off, or parted by another sign. */
    private static void uneven(List<List<String>> cells, List<Integer> lines, char separator, List<Problem> problems) {
        Map<Integer, Integer> widths = new HashMap<>();
        cells.forEach(row -> widths.merge(row.size(), 1, Integer::sum));
        int usual = widths.entrySet().stream()
                .max(Map.Entry.<Integer, Integer>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .map(Map.Entry::getKey)
                .orElse(0);
        boolean begun = false;
        for (int r = 0; r < cells.size(); r++) {
            List<String> row = cells.get(r);
            begun |= row.size() == usual;
            if (!begun || row.size() >= usual) {
                continue;
            }
            String first = row.get(0);
            Optional<Integer> other = SEPARATORS
                    .chars()
                    .boxed()
                    .filter(c -> row.size() == 1 && c != separator && count(first, (char) (int) c) == usual - 1)
                    .findFirst();
            if (other.isPresent()) {
                String sign = String.valueOf((char) (int) other.get());
                cells.set(
                        r,
                        Stream.of(first.split(Pattern.quote(sign), -1))
                                .map(String::strip)
                                .toList());
                problems.add(new Problem(
                        lines.get(r),
                        1,
                        "",
                        "'" + first + "' is divided by '" + sign + "', the other lines by '" + separator
                                + "'. It was read as if it were divided like them.",
                        false));
            } else if (row.size() > 1 && !first.startsWith("#")) {
                problems.add(new Problem(
                        lines.get(r),
                        row.size(),
                        "",
                        "This line has " + row.size() + " of " + usual + " cells; the last were taken as empty.",
                        false));
            }
        }
    }

    private static char separator(String text, String fileName) {
        if (fileName.toLowerCase(Locale.ROOT).endsWith(".tsv")) {
            return '\t';
        }
        List<String> lines =
                text.lines().filter(l -> !l.isBlank()).limit(SAMPLE).toList();
        char best = ',';
        for (char candidate : new char[] {'\t', ';', '|'}) {
            int more = Long.compare(alike(lines, candidate), alike(lines, best));
            boolean moreInFirst = !lines.isEmpty() && count(lines.get(0), candidate) > count(lines.get(0), best);
            if (more > 0 || (more == 0 && moreInFirst)) {
                best = candidate;
            }
        }
        return best;
    }

    /** Lines that hold a separator equally often, which those between cells do and those within texts do not. */
    private static long alike(List<String> lines, char separator) {
        long most = 0;
        for (String line : lines) {
            long wanted = count(line, separator);
            long same =
                    lines.stream().filter(l -> count(l, separator) == wanted).count();
            most = wanted == 0 ? most : Math.max(most, same);
        }
        return most;
    }

    private static long count(String text, char wanted) {
        return text.chars().filter(c -> c == wanted).count();
    }

    public static String write(List<List<String>> lines, char separator) {
        CSVFormat format = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(separator)
                .setRecordSeparator("\n")
                .get();
        StringBuilder text = new StringBuilder();
        try (CSVPrinter printer = new CSVPrinter(text, format)) {
            for (List<String> line : lines) {
                printer.printRecord(line.stream().map(TextTable::quoted).toList());
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException("Writing to memory failed", impossible);
        }
        return text.toString();
    }

    /** Spreadsheets run texts that begin like a formula; an apostrophe in front says that it is text. */
    private static String quoted(String value) {
        return value.matches("(?s)'*[=+@\\-].*") ? "'" + value : value;
    }

    private static String unquoted(String value) {
        return value.matches("(?s)'+[=+@\\-].*") ? value.substring(1) : value;
    }
}
