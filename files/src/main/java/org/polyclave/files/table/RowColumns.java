package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.rules.Ranks;

/** Reads the columns of a wide table that describe its rows. */
final class RowColumns {
    /** What may describe a row. */
    static final List<String> KNOWN = List.of(
            "rank",
            "parent",
            "stage",
            "hazard",
            "weight",
            "covers",
            "authorship",
            "synonyms",
            "vernacular",
            "status",
            "present",
            "habitat",
            "description");

    private static final String SPECIES = "species";
    /** What people write who say that something is harmful, not how. */
    private static final Set<String> SOME_HARM = Set.of(
            "yes", "y", "x", "+", "1", "true", "poisonous", "toxic", "harmful", "venomous", "irritant", "danger");

    private static final Set<String> DEADLY = Set.of("deadly", "lethal", "fatal", "very poisonous", "highly toxic");
    /** Nobody assessed what is only said not to be so. */
    private static final Set<String> NOT_SAID =
            Set.of("no", "n", "-", "–", "?", "0", "false", "unknown", "none", "harmless");

    private final Sheet sheet;
    /** Rows by their place in the sheet; those that were added for a stage have a negative one. */
    private final Map<Integer, StudyRow> rowAt;

    private final TableReport report;
    private final Map<String, Integer> columnOf;
    private final Map<String, Integer> byId = new HashMap<>();
    /** Whether it was said that a "no" assesses nothing. */
    private boolean toldOfNo;

    RowColumns(Sheet sheet, Map<String, Integer> columnOf, Map<Integer, StudyRow> rowAt, TableReport report) {
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
        rowAt.put(r, described(r, row.withCoverage(StudyRow.Coverage.BY_RULE.with(covers(r)))));
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
        String text =
                cell(r, "hazard").toLowerCase(Locale.ROOT).replace('-', ' ').strip();
        return switch (text) {
            case "", "not assessed" -> Hazard.NOT_ASSESSED;
            case "none known" -> Hazard.NONE_KNOWN;
            case "caution" -> Hazard.CAUTION;
            case "serious" -> Hazard.SERIOUS;
            case "life threatening" -> Hazard.LIFE_THREATENING;
            default -> otherHazard(r, text);
        };
    }

    /** People write that a taxon is harmful in other words than how much: they are asked. */
    private Hazard otherHazard(int r, String text) {
        if (NOT_SAID.contains(cell(r, "hazard").toLowerCase(Locale.ROOT).strip())) {
            if (!toldOfNo) {
                toldOfNo = true;
                report.notice(
                        r,
                        column("hazard"),
                        "'" + cell(r, "hazard")
                                + "' is not an assessment: such taxa stay 'hazard not assessed'. Assess them in Scope, with a source.");
            }
            return Hazard.NOT_ASSESSED;
        }
        List<String> severities = DEADLY.contains(text)
                ? List.of("life-threatening")
                : SOME_HARM.contains(text)
                        ? List.of("caution", "serious", "life-threatening")
                        : List.of("caution", "serious", "life-threatening", "none known");
        report.unread(
                r,
                column("hazard"),
                "'" + cell(r, "hazard")
                        + "' is not a severity. Use 'none known', 'caution', 'serious' or 'life-threatening', or leave it empty.",
                severities);
        return Hazard.NOT_ASSESSED;
    }

    /** Several in one cell, as in {@code #states}; people write commas and semicolons, too. */
    private List<String> list(int r, String name) {
        return Stream.of(cell(r, name).split("[|;]|,(?![^(]*\\))"))
                .map(String::strip)
                .filter(t -> t.matches("(?s).*[\\p{L}\\d].*"))
                .distinct()
                .toList();
    }

    private StudyRow described(int r, StudyRow row) {
        List<Integer> months = cell(r, "present").isEmpty()
                ? List.of()
                : CharacterColumns.months(cell(r, "present")).orElseGet(() -> {
                    report.unread(
                            r,
                            column("present"),
                            "'" + cell(r, "present") + "' is not a span of months. Write for example 'May–Jul'.",
                            List.of());
                    return List.of();
                });
        StudyRow.Names names = new StudyRow.Names(
                cell(r, "authorship"),
                list(r, "synonyms").stream()
                        .map(t -> new StudyRow.Synonym(t, "", false, ""))
                        .toList(),
                list(r, "vernacular").stream()
                        .map(t -> new StudyRow.Vernacular(t, "en"))
                        .toList());
        List<String> told = new ArrayList<>(List.of(cell(r, "description")));
        for (String name : KNOWN) {
            Sheet.Remark remark = columnOf.containsKey(name) ? sheet.remark(r, columnOf.get(name)) : null;
            if (remark != null && !remark.note().isEmpty()) {
                told.add(name + ": " + remark.note());
            }
        }
        told.removeIf(String::isEmpty);
        return row.with()
                .names(names)
                .status(list(r, "status"))
                .occurrence(new StudyRow.Occurrence(months, cell(r, "habitat"), List.of()))
                .description(String.join(" ", told))
                .build();
    }

    private int column(String name) {
        return columnOf.getOrDefault(name, 0);
    }

    private double weight(int r) {
        String text = cell(r, "weight");
        Optional<Double> weight = text.isEmpty() ? Optional.of(1.0) : number(text);
        if (weight.isEmpty() || !(weight.get() > 0) || weight.get() > 1e9) {
            report.unread(r, column("weight"), "'" + text + "' is not a weight. Write a number above 0.", List.of("1"));
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
                    added.merge(taxon, taxonOf(row).withParent(parentOf(entry.getKey())), RowColumns::joined);
                }
                entry.setValue(row.with()
                        .parent(taxon)
                        .names(StudyRow.Names.NONE)
                        .status(List.of())
                        .build());
            }
        }
        putBeforeTheirStages(added);
    }

    private void putBeforeTheirStages(Map<String, StudyRow> added) {
        Map<Integer, StudyRow> asListed = new LinkedHashMap<>(rowAt);
        rowAt.clear();
        int next = -1;
        for (Map.Entry<Integer, StudyRow> entry : asListed.entrySet()) {
            StudyRow row = entry.getValue();
            StudyRow taxon = row.isSemaphoront() ? added.remove(row.parent()) : null;
            if (taxon != null) {
                rowAt.put(next, taxon);
                byId.put(taxon.id(), next--);
            }
            rowAt.put(entry.getKey(), row);
        }
    }

    /** A table that names a species once says what describes it on the line of one sex or stage. */
    private static StudyRow joined(StudyRow taxon, StudyRow other) {
        return taxon.with()
                .hazard(joined(taxon.hazard(), other.hazard()))
                .names(taxon.names().equals(StudyRow.Names.NONE) ? other.names() : taxon.names())
                .status(taxon.status().isEmpty() ? other.status() : taxon.status())
                .build();
    }

    /** The worst; and what one line calls harmless is not assessed where another says nothing. */
    private static Hazard joined(Hazard one, Hazard other) {
        Hazard worst = one.compareTo(other) > 0 ? one : other;
        return worst == Hazard.NONE_KNOWN && one != other ? Hazard.NOT_ASSESSED : worst;
    }

    private StudyRow taxonOf(StudyRow stage) {
        StudyRow bare = new StudyRow(
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
        return bare.with().names(stage.names()).status(stage.status()).build();
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
