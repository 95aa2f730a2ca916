package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;

/**
 * Finds what was copied: a row that is another's with one or two cells changed, and a description that is another's with the
 * name exchanged. Rows that differ in at most two cells agree in one of three blocks of characters at least, so only rows that
 * agree in a block are compared: time O(rows · characters) where few do.
 */
final class CopyCheck {
    private static final int MOST_CHANGED = 2;
    /** Fewer cells that are known of both may well be alike. */
    private static final int FEWEST_CELLS = 8;
    /** Measured ranges that agree to the last digit are hardly chance; without numbers, more cells have to agree. */
    private static final int FEWEST_RANGES = 2;

    private static final int FEWEST_CELLS_WITHOUT_RANGES = 14;
    private static final int TELLING_TEXT = 40;

    private final CompiledStudy compiled;
    private final List<StudyFinding> found = new ArrayList<>();

    private CopyCheck(CompiledStudy compiled) {
        this.compiled = compiled;
    }

    static List<StudyFinding> of(CompiledStudy compiled) {
        CopyCheck check = new CopyCheck(compiled);
        check.rows();
        check.texts();
        return check.found;
    }

    /** Only what a row says itself: what it inherits is alike by its nature. */
    private void rows() {
        List<StudyRow> rows = compiled.study().rows();
        Set<List<Integer>> pairs = new TreeSet<>(
                Comparator.comparing((List<Integer> p) -> p.get(0)).thenComparing(p -> p.get(1)));
        for (int block = 0; block <= MOST_CHANGED; block++) {
            Map<List<Optional<ScoreValue>>, List<Integer>> alike = new HashMap<>();
            for (int i = 0; i < rows.size(); i++) {
                List<Optional<ScoreValue>> cells = new ArrayList<>();
                for (int c = block; c < compiled.characters().size(); c += MOST_CHANGED + 1) {
                    cells.add(own(rows.get(i), c));
                }
                if (cells.stream().anyMatch(Optional::isPresent)) {
                    List<Integer> earlier = alike.computeIfAbsent(cells, k -> new ArrayList<>());
                    for (int j : earlier) {
                        pairs.add(List.of(j, i));
                    }
                    earlier.add(i);
                }
            }
        }
        pairs.forEach(p -> pair(rows.get(p.get(0)), rows.get(p.get(1))));
    }

    private Optional<ScoreValue> own(StudyRow row, int c) {
        return Optional.ofNullable(compiled.scores()
                        .getOrDefault(row.id(), Map.of())
                        .get(compiled.characters().get(c).id()))
                .map(StudyScore::value);
    }

    private void pair(StudyRow first, StudyRow second) {
        int known = 0;
        int ranges = 0;
        List<String> changed = new ArrayList<>();
        for (int c = 0; c < compiled.characters().size() && changed.size() <= MOST_CHANGED; c++) {
            Optional<ScoreValue> mine = own(first, c);
            if (!mine.equals(own(second, c))) {
                changed.add(compiled.characters().get(c).label());
            } else if (mine.isPresent()) {
                known++;
                boolean wide = mine.get() instanceof ScoreValue.Range range
                        && (range.high() == null || range.low() < range.high());
                ranges += wide ? 1 : 0;
            }
        }
        boolean enough = ranges >= FEWEST_RANGES ? known >= FEWEST_CELLS : known >= FEWEST_CELLS_WITHOUT_RANGES;
        if (!changed.isEmpty() && changed.size() <= MOST_CHANGED && enough) {
            found.add(StudyFinding.of(FindingKind.NEAR_COPY, second.id(), "", first.id())
                    .with("row", second.name())
                    .with("otherRow", first.name())
                    .with("cells", known)
                    .with("changed", changed));
        }
    }

    private void texts() {
        Map<String, StudyRow> first = new HashMap<>();
        for (StudyRow row : compiled.study().rows()) {
            String text = row.description().strip();
            if (text.length() < TELLING_TEXT) {
                continue;
            }
            StudyRow same = first.putIfAbsent(withoutName(text, row), row);
            if (same != null && !same.description().strip().equals(text)) {
                found.add(StudyFinding.of(FindingKind.COPIED_TEXT, row.id(), "", same.id())
                        .with("row", row.name())
                        .with("otherRow", same.name()));
            }
        }
    }

    /** A text with what names its taxon taken out. */
    private static String withoutName(String text, StudyRow row) {
        String left = " " + text.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", " ") + " ";
        List<String> names = Stream.concat(
                        Stream.of(row.label(), row.plain(), row.stage()),
                        Stream.concat(
                                row.names().vernacular().stream().map(StudyRow.Vernacular::name),
                                Arrays.stream(row.label().split("\\s+"))))
                .map(n -> n.toLowerCase(Locale.ROOT)
                        .replaceAll("[^\\p{L}\\p{N}]+", " ")
                        .strip())
                .filter(n -> n.length() > 2)
                .sorted((p, q) -> Integer.compare(q.length(), p.length()))
                .toList();
        for (String name : names) {
            left = left.replace(" " + name + " ", " ~ ");
        }
        return left;
    }
}
