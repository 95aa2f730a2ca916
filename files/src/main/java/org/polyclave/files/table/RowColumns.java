package org.polyclave.files.table;

import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.table.CharacterColumns.Report;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.rules.Ranks;

/** Reads the columns of a wide table that describe its rows. */
final class RowColumns {
    private static final String SPECIES = "species";

    private final Sheet sheet;
    /** Rows by their place in the sheet; those that were added for a stage have a negative one. */
    private final Map<Integer, StudyRow> rowAt;

    private final Report report;
    private final Map<String, Integer> columnOf;
    private final Map<String, Integer> byId = new HashMap<>();

    RowColumns(Sheet sheet, Map<String, Integer> columnOf, Map<Integer, StudyRow> rowAt, Report report) {
        this.sheet = sheet;
        this.rowAt = rowAt;
        this.report = report;
        this.columnOf = columnOf;
    }

    private String cell(int r, String name) {
        Integer column = columnOf.get(name);
        return column == null ? "" : sheet.cell(r, column);
    }

    void read(int r) {
        String label = sheet.cell(r, 0);
        String stage = cell(r, "stage");
        String id = Slug.of(stage.isEmpty() ? label : label + " " + stage);
        if (label.isEmpty() || id.isEmpty()) {
            report.problem(r, 0, "the taxon has no name. Write it in the first column, or remove the row.");
            return;
        }
        Integer other = byId.putIfAbsent(id, r);
        if (other != null) {
            report.problem(
                    r,
                    0,
                    "'" + label + (stage.isEmpty() ? "" : ", " + stage) + "' is already in row "
                            + sheet.place(other, 0).line() + ". Rename one, or distinguish them by #stage.");
            return;
        }
        String rank = cell(r, "rank");
        StudyRow row = new StudyRow(
                id,
                label,
                "",
                rank,
                null,
                stage,
                hazard(r),
                List.of(),
                List.of(),
                weight(r),
                rank.equalsIgnoreCase("aggregate"),
                List.of(),
                "");
        rowAt.put(r, row.withCoverage(StudyRow.Coverage.BY_RULE.with(covers(r))));
    }

    private StudyRow.Covers covers(int r) {
        return switch (cell(r, "covers").toLowerCase(Locale.ROOT)) {
            case "" -> StudyRow.Covers.BY_RULE;
            case "all" -> StudyRow.Covers.ALL;
            case "not all" -> StudyRow.Covers.NOT_ALL;
            default -> {
                report.problem(
                        r,
                        column("covers"),
                        "'" + cell(r, "covers")
                                + "' does not say whether the rows below a taxon are all there is of it. Write 'all' or"
                                + " 'not all', or leave it empty.");
                yield StudyRow.Covers.BY_RULE;
            }
        };
    }

    private Hazard hazard(int r) {
        return switch (cell(r, "hazard").toLowerCase(Locale.ROOT).replace('-', ' ')) {
            case "", "not assessed" -> Hazard.NOT_ASSESSED;
            case "none known" -> Hazard.NONE_KNOWN;
            case "caution" -> Hazard.CAUTION;
            case "serious" -> Hazard.SERIOUS;
            case "life threatening" -> Hazard.LIFE_THREATENING;
            default -> {
                report.problem(
                        r,
                        column("hazard"),
                        "'" + cell(r, "hazard")
                                + "' is not a severity. Use 'none known', 'caution', 'serious' or 'life-threatening', or leave it empty.");
                yield Hazard.NOT_ASSESSED;
            }
        };
    }

    private int column(String name) {
        return columnOf.getOrDefault(name, 0);
    }

    private double weight(int r) {
        String text = cell(r, "weight");
        Optional<Double> weight = text.isEmpty() ? Optional.of(1.0) : number(text);
        if (weight.isEmpty() || !(weight.get() > 0) || weight.get() > 1e9) {
            report.problem(r, column("weight"), "'" + text + "' is not a weight. Write a number above 0.");
            return 1;
        }
        return weight.get();
    }

    /** Sexes and stages belong to their taxon, which is added where the table has no row for it. */
    void addTaxaOfStages() {
        Map<String, StudyRow> added = new LinkedHashMap<>();
        for (Map.Entry<Integer, StudyRow> entry : rowAt.entrySet()) {
            StudyRow row = entry.getValue();
            String taxon = Slug.of(row.label());
            if (row.isSemaphoront()) {
                if (!byId.containsKey(taxon) && !taxon.isEmpty()) {
                    added.putIfAbsent(taxon, taxonOf(row).withParent(parentOf(entry.getKey())));
                }
                entry.setValue(row.withParent(taxon));
            }
        }
        int next = -1;
        for (StudyRow taxon : added.values()) {
            rowAt.put(next, taxon);
            byId.put(taxon.id(), next--);
        }
    }

    private StudyRow taxonOf(StudyRow stage) {
        return new StudyRow(
                Slug.of(stage.label()),
                stage.label(),
                "",
                stage.rank(),
                null,
                "",
                stage.hazard(),
                List.of(),
                List.of(),
                1,
                false,
                List.of(),
                "");
    }

    private @Nullable String parentOf(int r) {
        String parent = Slug.of(cell(r, "parent"));
        return parent.isEmpty() ? null : parent;
    }

    void resolveParents() {
        for (Map.Entry<Integer, StudyRow> entry : rowAt.entrySet()) {
            int r = entry.getKey();
            if (r >= 0
                    && !entry.getValue().isSemaphoront()
                    && !cell(r, "parent").isEmpty()) {
                String parent = Slug.of(cell(r, "parent"));
                if (!byId.containsKey(parent)) {
                    report.problem(
                            r,
                            column("parent"),
                            "the parent '" + cell(r, "parent") + "' has no row. Add it, or correct its name.");
                } else {
                    entry.setValue(entry.getValue().withParent(parent));
                }
            }
        }
    }

    /**
     * Ranks where the table gives none: a species, unless that would not stand above its parts or below its parent;
     * then none.
     */
    void chooseRanks() {
        Map<String, StudyRow> rows = new HashMap<>();
        rowAt.values().forEach(row -> rows.put(row.id(), row));
        Set<String> above = new HashSet<>();
        for (StudyRow row : rowAt.values()) {
            String rank = row.rank().isEmpty() ? SPECIES : row.rank();
            if (row.parent() != null && !row.isSemaphoront() && !Ranks.mayContain(SPECIES, rank)) {
                above.add(row.parent());
            }
        }
        for (Map.Entry<Integer, StudyRow> entry : rowAt.entrySet()) {
            StudyRow row = entry.getValue();
            StudyRow parent = row.parent() == null ? null : rows.get(row.parent());
            boolean below = parent != null && !Ranks.mayContain(parent.rank(), SPECIES);
            if (row.rank().isEmpty() && !above.contains(row.id()) && (row.isSemaphoront() || !below)) {
                entry.setValue(row.withRank(SPECIES));
            }
        }
    }

    private static Optional<Double> number(String text) {
        try {
            return Optional.of(Double.parseDouble(text.replace(',', '.')));
        } catch (NumberFormatException noNumber) {
            return Optional.empty();
        }
    }
}
