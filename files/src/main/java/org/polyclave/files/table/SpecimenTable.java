package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.Problem;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.rule.RuleWording;

/**
 * Specimens as people list them: one a line, the first column {@code specimen}. It holds no scores; taxa are only those that the
 * specimens are named as.
 */
final class SpecimenTable {
    private static final Set<String> COLUMNS = Set.of(
            "specimen",
            "row",
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
    /** Columns of what the rules of studies call by another name. */
    private static final Map<String, String> COLUMN_OF = Map.of(
            "code", "specimen",
            "date", "determined on",
            "event.date", "date",
            "event.coordinates", "coordinates",
            "event.uncertainty", "uncertainty");

    private static final List<String> QUALIFIERS = List.of("cf.", "aff.");

    private final Sheet sheet;
    private final List<Problem> problems;
    private final Map<String, Integer> columnOf = new HashMap<>();
    private final Map<String, StudyRow> rows = new LinkedHashMap<>();
    /** Lines of the table by what they hold, as the rules of studies name its place. */
    private final Map<String, Integer> lineOf = new HashMap<>();

    private final List<Specimen> specimens = new ArrayList<>();

    private SpecimenTable(Sheet sheet, List<Problem> problems) {
        this.sheet = sheet;
        this.problems = problems;
    }

    /** Beginning with specimens, and mostly about them: a table of what specimens show is a matrix that nobody prepared. */
    static boolean isSuch(Sheet sheet) {
        if (sheet.rows() == 0) {
            return false;
        }
        List<String> names = sheet.row(0).stream()
                .map(SpecimenHeadings::nameOf)
                .filter(n -> !n.isEmpty())
                .toList();
        long known = names.stream().filter(COLUMNS::contains).count();
        return !names.isEmpty() && names.get(0).equals("specimen") && 2 * known >= names.size();
    }

    /** @param problems what was already found; what is found here is added */
    static ImportedStudy read(Sheet sheet, String title, List<Problem> problems) {
        SpecimenTable reader = new SpecimenTable(sheet, problems);
        reader.headings();
        if (sheet.rows() - 1 > Limits.SPECIMENS) {
            problems.add(Problem.file("The table has " + (sheet.rows() - 1) + " specimens; a study takes at most "
                    + Limits.SPECIMENS + ". Bring in those that its scores rest on."));
        } else {
            for (int r = 1; r < sheet.rows(); r++) {
                reader.specimen(r);
            }
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
                .withSpecimens(reader.specimens);
        StudyRules.check(study).forEach(reader::broken);
        return new ImportedStudy(study, problems, List.of(), List.of());
    }

    private void broken(StudyRules.Violation violation) {
        int line = lineOf.getOrDefault(violation.place(), 0);
        problem(line, COLUMN_OF.getOrDefault(violation.field(), violation.field()), RuleWording.sentence(violation));
    }

    private void headings() {
        Set<String> unknown = new TreeSet<>();
        for (int c = 0; c < sheet.columns(); c++) {
            String heading = sheet.cell(0, c).strip();
            String name = SpecimenHeadings.nameOf(heading);
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
        String id = Slug.unused(Slug.of(code, "specimen"), i -> lineOf.putIfAbsent("specimen/" + i, row) != null);
        Specimen.Event event = new Specimen.Event(
                text(row, "date"),
                text(row, "place"),
                text(row, "coordinates"),
                uncertainty(row),
                text(row, "collector"),
                text(row, "habitat"),
                text(row, "host"));
        specimens.add(new Specimen(
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
        String taxon = text(row, "row");
        String qualifier = text(row, "qualifier");
        for (String possible : QUALIFIERS) {
            if (taxon.startsWith(possible + " ")) {
                qualifier = possible;
                taxon = taxon.substring(possible.length()).strip();
            }
        }
        if (taxon.isEmpty()) {
            return List.of();
        }
        String label = taxon;
        StudyRow named = rows.computeIfAbsent(StudyRules.folded(label), t -> StudyRow.of(label));
        lineOf.putIfAbsent("row/" + named.id(), row);
        return List.of(new Specimen.Determination(
                named.id(),
                qualifier,
                Specimen.Kind.DETERMINED,
                text(row, "determined by"),
                text(row, "determined on"),
                text(row, "determined with"),
                List.of()));
    }

    private @Nullable Double uncertainty(int row) {
        String typed = text(row, "uncertainty").replace(',', '.');
        if (typed.isEmpty()) {
            return null;
        }
        if (!typed.matches("\\d+(\\.\\d+)?")) {
            problem(row, "uncertainty", "'" + typed + "' is not a number of metres. Write for example '25'.");
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
