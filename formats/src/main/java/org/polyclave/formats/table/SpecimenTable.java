package org.polyclave.formats.table;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.polyclave.formats.study.Coordinates;
import org.polyclave.formats.study.Slug;
import org.polyclave.formats.study.Specimen;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyRow;
import org.polyclave.formats.study.StudyRules;
import org.polyclave.formats.study.StudyScope;

/**
 * Specimens as people list them: one a line, the first column {@code specimen}. It holds no scores; taxa are only those that the
 * specimens are named as.
 */
final class SpecimenTable {
    private static final Set<String> COLUMNS = Set.of(
            "specimen",
            "taxon",
            "qualifier",
            "determined by",
            "determined on",
            "determined with",
            "date",
            "place",
            "coordinates",
            "uncertainty",
            "collector",
            "habitat",
            "host",
            "stage",
            "sex",
            "storage",
            "note");
    private static final Map<String, String> OTHER_NAMES = Map.of(
            "voucher", "specimen",
            "row", "taxon",
            "det.", "determined by",
            "uncertainty (m)", "uncertainty",
            "substrate", "host");
    private static final List<String> QUALIFIERS = List.of("cf.", "aff.");

    private final Sheet sheet;
    private final List<Problem> problems;
    private final Map<String, Integer> columnOf = new HashMap<>();
    private final Map<String, StudyRow> rows = new LinkedHashMap<>();
    private final Map<String, Specimen> specimens = new LinkedHashMap<>();

    private SpecimenTable(Sheet sheet, List<Problem> problems) {
        this.sheet = sheet;
        this.problems = problems;
    }

    private static String name(String heading) {
        String name = heading.strip().toLowerCase(Locale.ROOT);
        return OTHER_NAMES.getOrDefault(name, name);
    }

    static boolean isSuch(Sheet sheet) {
        return sheet.rows() > 0 && name(sheet.cell(0, 0)).equals("specimen");
    }

    /** @param problems what was already found; what is found here is added */
    static ImportedStudy read(Sheet sheet, String title, List<Problem> problems) {
        SpecimenTable reader = new SpecimenTable(sheet, problems);
        reader.headings();
        for (int r = 1; r < sheet.rows(); r++) {
            reader.specimen(r);
        }
        String slug = Slug.of(title).isEmpty() ? "study" : Slug.of(title);
        Study study = new Study(
                        slug,
                        title,
                        StudyScope.EMPTY,
                        List.copyOf(reader.rows.values()),
                        List.of(),
                        List.of(),
                        List.of())
                .withSpecimens(List.copyOf(reader.specimens.values()));
        return new ImportedStudy(study, problems, List.of(), List.of());
    }

    private void headings() {
        Set<String> unknown = new TreeSet<>();
        for (int c = 0; c < sheet.columns(); c++) {
            String heading = sheet.cell(0, c).strip();
            String name = name(heading);
            if (!COLUMNS.contains(name)) {
                unknown.add(heading);
            } else if (columnOf.putIfAbsent(name, c) != null) {
                problem(0, name, "there are two columns for '" + name + "'. Rename one of them.");
            }
        }
        unknown.remove("");
        if (!unknown.isEmpty()) {
            problems.add(new Problem(
                    0,
                    0,
                    "",
                    "These columns do not describe specimens and were set aside: " + String.join(", ", unknown) + ".",
                    false));
        }
    }

    private void specimen(int row) {
        String code = text(row, "specimen");
        if (code.isEmpty()) {
            problem(row, "specimen", "this line has no code. Give it the one on the label, or take the line out.");
            return;
        }
        String id = Slug.of(code).isEmpty() ? "specimen-" + row : Slug.of(code);
        if (specimens.containsKey(StudyRules.folded(code))) {
            problem(row, "specimen", "'" + code + "' stands twice. A handful picked together is several specimens.");
            return;
        }
        checkDate(row, "date");
        checkDate(row, "determined on");
        String coordinates = text(row, "coordinates");
        if (!coordinates.isEmpty() && Coordinates.parse(coordinates) instanceof Coordinates.Rejected rejected) {
            problem(row, "coordinates", rejected.reason());
        }
        Specimen.Event event = new Specimen.Event(
                text(row, "date"),
                text(row, "place"),
                coordinates,
                uncertainty(row),
                text(row, "collector"),
                text(row, "habitat"),
                text(row, "host"));
        specimens.put(
                StudyRules.folded(code),
                new Specimen(
                        id,
                        code,
                        determinations(row),
                        event,
                        text(row, "stage"),
                        text(row, "sex"),
                        List.of(),
                        text(row, "storage"),
                        text(row, "note")));
    }

    private List<Specimen.Determination> determinations(int row) {
        String taxon = text(row, "taxon");
        String qualifier = text(row, "qualifier");
        for (String possible : QUALIFIERS) {
            if (taxon.startsWith(possible + " ")) {
                qualifier = possible;
                taxon = taxon.substring(possible.length()).strip();
            }
        }
        if (!qualifier.isEmpty() && !QUALIFIERS.contains(qualifier)) {
            problem(row, "qualifier", "'" + qualifier + "' is no qualifier. Write 'cf.', 'aff.' or nothing.");
        }
        if (taxon.isEmpty()) {
            return List.of();
        }
        String label = taxon;
        StudyRow named = rows.computeIfAbsent(StudyRules.folded(label), t -> StudyRow.of(label));
        return List.of(new Specimen.Determination(
                named.id(),
                qualifier,
                Specimen.Kind.DETERMINED,
                text(row, "determined by"),
                text(row, "determined on"),
                text(row, "determined with"),
                List.of()));
    }

    private void checkDate(int row, String column) {
        String date = text(row, column);
        if (!StudyRules.isDate(date)) {
            problem(
                    row,
                    column,
                    "'" + date + "' is no date. Write year, month and day ('2031-05-04'), or the year alone.");
        }
    }

    private @Nullable Double uncertainty(int row) {
        String typed = text(row, "uncertainty").replace(',', '.');
        if (typed.isEmpty()) {
            return null;
        }
        if (!typed.matches("\\d+(\\.\\d+)?") || Double.parseDouble(typed) <= 0) {
            problem(row, "uncertainty", "'" + typed + "' is no number of metres above 0.");
            return null;
        }
        return Double.valueOf(typed);
    }

    private String text(int row, String column) {
        Integer c = columnOf.get(column);
        return c == null ? "" : sheet.cell(row, c).strip();
    }

    private void problem(int row, String column, String text) {
        int c = columnOf.getOrDefault(column, 0);
        Sheet.Place place = sheet.place(row, c);
        problems.add(Problem.at(place.line(), place.column(), sheet.cell(0, c), text));
    }
}
