package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.study.rules.Problem;

/**
 * Long tables: one score a line, with where it comes from. Lines whose taxon begins with {@code #} describe a character,
 * lines whose character begins with {@code #} describe a row, by the same names as in wide tables.
 */
final class LongTable {
    private static final List<String> COLUMNS = List.of(
            "taxon",
            "stage",
            "character",
            "score",
            "basis",
            "source",
            "scorer",
            "date",
            "note",
            "months",
            "doubtful",
            "concept");

    private LongTable() {}

    static boolean isLong(Sheet sheet) {
        List<String> header =
                sheet.row(0).stream().map(h -> h.toLowerCase(Locale.ROOT)).toList();
        return header.contains("taxon") && header.contains("character") && header.contains("score");
    }

    /** The same table in its wide form; every cell keeps the place of its line. */
    static Sheet widen(Sheet table, List<Problem> problems) {
        return new Widening(table, problems).run();
    }

    private static final class Widening {
        private final Sheet table;
        private final List<Problem> problems;
        private final Map<String, Integer> at = new HashMap<>();
        private final Map<String, Integer> columns = new LinkedHashMap<>();
        private final Map<List<String>, Integer> rows = new LinkedHashMap<>();
        private final List<List<String>> cells = new ArrayList<>();
        private final Map<List<Integer>, Sheet.Place> places = new HashMap<>();
        private final Map<Sheet.Place, Sheet.Remark> remarks = new HashMap<>();

        Widening(Sheet table, List<Problem> problems) {
            this.table = table;
            this.problems = problems;
        }

        Sheet run() {
            for (int c = 0; c < table.columns(); c++) {
                String name = table.cell(0, c).toLowerCase(Locale.ROOT);
                if (!COLUMNS.contains(name)) {
                    Sheet.Place place = table.place(0, c);
                    problems.add(new Problem(
                            place.line(),
                            place.column(),
                            table.cell(0, c),
                            "The column '" + table.cell(0, c) + "' was set aside. Known are "
                                    + String.join(", ", COLUMNS) + ".",
                            false));
                }
                at.putIfAbsent(name, c);
            }
            cells.add(new ArrayList<>(List.of("taxon", "#stage")));
            places.put(List.of(0, 0), table.place(0, at.getOrDefault("taxon", 0)));
            for (int r = 1; r < table.rows(); r++) {
                read(r);
            }
            Sheet.Place start = table.place(0, 0);
            return new Sheet(
                    cells,
                    (row, column) ->
                            places.getOrDefault(List.of(row, column), places.getOrDefault(List.of(row, 0), start)),
                    remarks,
                    table.marks());
        }

        private String text(int r, String name) {
            return at.containsKey(name) ? table.cell(r, at.get(name)) : "";
        }

        private void read(int r) {
            String taxon = text(r, "taxon");
            String stage = taxon.startsWith("#") ? "" : text(r, "stage");
            String character = text(r, "character");
            if (character.isEmpty() && !taxon.startsWith("#")) {
                // A taxon without a score is told by its name alone.
                row(taxon, stage, r);
                return;
            }
            int row = row(taxon, stage, r);
            int column = column(character, r);
            List<Integer> cell = List.of(row, column);
            Sheet.Place place = table.place(r, at.getOrDefault("score", 0));
            Sheet.Place before = places.putIfAbsent(cell, place);
            if (before != null) {
                problems.add(Problem.at(
                        place.line(),
                        place.column(),
                        "score",
                        "'" + taxon + (stage.isEmpty() ? "" : ", " + stage) + "' is scored for '" + character
                                + "' in line " + before.line() + " already. Keep one of the lines."));
                return;
            }
            List<String> line = cells.get(row);
            while (line.size() <= column) {
                line.add("");
            }
            line.set(column, text(r, "score"));
            remarks.put(place, remark(r));
        }

        private Sheet.Remark remark(int r) {
            return new Sheet.Remark(
                    text(r, "basis"),
                    text(r, "source"),
                    text(r, "doubtful").equalsIgnoreCase("yes"),
                    text(r, "note"),
                    text(r, "months"),
                    text(r, "scorer"),
                    text(r, "date"),
                    text(r, "concept"));
        }

        private int row(String taxon, String stage, int r) {
            return rows.computeIfAbsent(List.of(taxon, stage), key -> {
                int row = cells.size();
                cells.add(new ArrayList<>(List.of(taxon, stage)));
                places.put(List.of(row, 0), table.place(r, at.getOrDefault("taxon", 0)));
                places.put(List.of(row, 1), table.place(r, at.getOrDefault("stage", at.getOrDefault("taxon", 0))));
                return row;
            });
        }

        private int column(String character, int r) {
            return columns.computeIfAbsent(character, key -> {
                int column = cells.get(0).size();
                cells.get(0).add(character);
                places.put(List.of(0, column), table.place(r, at.getOrDefault("character", 0)));
                return column;
            });
        }
    }

    /** The lines of a study: what describes its characters and rows, then its scores. */
    static List<List<String>> compose(Study study) {
        List<List<String>> lines = new ArrayList<>();
        lines.add(COLUMNS);
        List<List<String>> wide = TableWriter.compose(study);
        List<String> header = wide.get(0);
        Map<String, Map<String, StudyScore>> scores = study.scoresByRow();
        int described = TableWriter.ABOUT_ROWS.size() + 1;
        int row = 0;
        for (List<String> line : wide.subList(1, wide.size())) {
            boolean about = line.get(0).startsWith("#");
            StudyRow of = about ? null : study.rows().get(row++);
            String stage = of == null ? "" : of.stage();
            if (of != null) {
                lines.add(line(line.get(0), stage, "", ""));
            }
            for (int c = 1; c < line.size(); c++) {
                if (line.get(c).isEmpty() || header.get(c).equals("#stage")) {
                    continue;
                }
                List<String> cell = line(line.get(0), stage, header.get(c), line.get(c));
                if (of != null && c >= described) {
                    StudyCharacter character = study.characters().get(c - described);
                    StudyScore score = scores.getOrDefault(of.id(), Map.of()).get(character.id());
                    cell = score == null ? cell : withOrigin(cell, score);
                }
                lines.add(cell);
            }
        }
        return lines;
    }

    private static List<String> line(String taxon, String stage, String character, String score) {
        List<String> line = new ArrayList<>(List.of(taxon, stage, character, score));
        while (line.size() < COLUMNS.size()) {
            line.add("");
        }
        return line;
    }

    private static List<String> withOrigin(List<String> line, StudyScore score) {
        List<String> told = new ArrayList<>(line.subList(0, 4));
        told.addAll(List.of(
                score.basis().name().toLowerCase(Locale.ROOT),
                score.source(),
                score.scorer(),
                score.date(),
                score.note(),
                MonthNotation.print(score.months()),
                score.doubtful() ? "yes" : "",
                score.concept()));
        return told;
    }
}
