package org.polyclave.files.darwincore;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyRow.Synonym;
import org.polyclave.study.model.StudyRow.Vernacular;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.Problem;
import org.polyclave.study.rules.Ranks;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.rule.RuleWording;

/**
 * Taxa as a table of Darwin Core terms (Biodiversity Information Standards, 2009, class Taxon): one name a row, synonyms
 * pointing at the name that is accepted. It holds names, ranks and the tree, and no scores; sexes and stages are not taxa.
 */
public final class DarwinCoreTaxa {
    private static final List<String> TERMS = List.of(
            "taxonID",
            "parentNameUsageID",
            "acceptedNameUsageID",
            "scientificName",
            "scientificNameAuthorship",
            "taxonRank",
            "taxonomicStatus",
            "nameAccordingTo",
            "vernacularName",
            "taxonRemarks");

    /** Several values of one term, as the standard recommends to write them. */
    private static final String AND = " | ";

    /** BCP 47: nobody said which language it is. */
    private static final String UNDETERMINED = "und";

    private static final String MISAPPLIED = "misapplied";

    private final Sheet sheet;
    private final List<Problem> problems;
    private final Map<String, Integer> columnOf = new HashMap<>();
    /** Rows by their identifiers in the file; those made for a higher rank that the file only names have none. */
    private final Map<String, StudyRow> byFileId = new LinkedHashMap<>();

    private final Map<String, StudyRow> byId = new LinkedHashMap<>();
    private final Map<String, List<Synonym>> synonyms = new HashMap<>();

    private DarwinCoreTaxa(Sheet sheet, List<Problem> problems) {
        this.sheet = sheet;
        this.problems = problems;
        for (int c = 0; c < sheet.columns(); c++) {
            columnOf.put(term(sheet.cell(0, c)), c);
        }
    }

    /** A term may be headed by its name alone or by its whole address, in any case. */
    private static String term(String heading) {
        return heading.replaceFirst("^.*[/:]", "").strip().toLowerCase(Locale.ROOT);
    }

    public static boolean isSuch(Sheet sheet) {
        return sheet.rows() > 0 && sheet.row(0).stream().anyMatch(h -> term(h).equals("scientificname"));
    }

    public static List<List<String>> compose(Study study) {
        List<List<String>> lines = new ArrayList<>();
        lines.add(TERMS);
        for (StudyRow row : study.rows()) {
            if (row.isSemaphoront()) {
                continue;
            }
            String authorship = row.names().authorship();
            lines.add(List.of(
                    row.id(),
                    row.parent() == null ? "" : row.parent(),
                    "",
                    (row.label() + " " + authorship).strip(),
                    authorship,
                    row.rank(),
                    "accepted",
                    "",
                    String.join(
                            AND,
                            row.names().vernacular().stream()
                                    .map(Vernacular::name)
                                    .toList()),
                    row.description()));
            int n = 0;
            for (Synonym synonym : row.names().synonyms()) {
                n++;
                lines.add(List.of(
                        row.id() + "-synonym-" + n,
                        "",
                        row.id(),
                        (synonym.name() + " " + synonym.authorship()).strip(),
                        synonym.authorship(),
                        "",
                        synonym.misapplied() ? MISAPPLIED : "synonym",
                        synonym.source(),
                        "",
                        ""));
            }
        }
        return lines;
    }

    /** @param problems what was already found; what is found here is added */
    public static ImportedStudy read(Sheet sheet, String title, List<Problem> problems) {
        DarwinCoreTaxa reader = new DarwinCoreTaxa(sheet, problems);
        if (sheet.rows() > Limits.TAXA) {
            problems.add(Problem.file("The list has " + (sheet.rows() - 1) + " names; a study has at most "
                    + Limits.TAXA + ". Remove what the study is not about."));
        } else {
            reader.names();
        }
        String slug = Slug.of(title).isEmpty() ? "taxa" : Slug.of(title);
        Study study = new Study(
                slug, title, StudyScope.EMPTY, List.copyOf(reader.byId.values()), List.of(), List.of(), List.of());
        StudyRules.check(study).forEach(v -> problems.add(Problem.file(RuleWording.sentence(v))));
        return new ImportedStudy(study, problems, List.of(), List.of());
    }

    private String cell(int r, String term) {
        Integer column = columnOf.get(term.toLowerCase(Locale.ROOT));
        return column == null ? "" : sheet.cell(r, column);
    }

    private void problem(int r, String term, String text, boolean blocking) {
        int column = columnOf.getOrDefault(term.toLowerCase(Locale.ROOT), 0);
        Sheet.Place place = sheet.place(r, column);
        problems.add(new Problem(place.line(), place.column(), term, text, blocking));
    }

    private void names() {
        List<Integer> accepted = new ArrayList<>();
        for (int r = 1; r < sheet.rows(); r++) {
            if (name(r).isEmpty()) {
                problem(r, "scientificName", "The row names no taxon. Write its name, or remove the row.", true);
            } else if (isSynonym(r)) {
                synonyms.computeIfAbsent(cell(r, "acceptedNameUsageID"), id -> new ArrayList<>())
                        .add(synonym(r));
            } else {
                accepted.add(r);
            }
        }
        accepted.forEach(this::taxon);
        accepted.forEach(this::place);
        synonyms.keySet().stream()
                .filter(id -> !byFileId.containsKey(id))
                .forEach(id -> problems.add(new Problem(
                        0, 0, "", "Synonyms of '" + id + "' are left out: the file names no such taxon.", false)));
    }

    private boolean isSynonym(int r) {
        String status = cell(r, "taxonomicStatus").toLowerCase(Locale.ROOT);
        String accepted = cell(r, "acceptedNameUsageID");
        return status.contains("synonym")
                || status.contains(MISAPPLIED)
                || (!accepted.isEmpty() && !accepted.equals(cell(r, "taxonID")));
    }

    /** The name without its authorship, which the standard writes into both terms. */
    private String name(int r) {
        String full = cell(r, "scientificName");
        String authorship = cell(r, "scientificNameAuthorship");
        boolean has = !authorship.isEmpty() && full.endsWith(authorship) && full.length() > authorship.length();
        return has ? full.substring(0, full.length() - authorship.length()).strip() : full;
    }

    private Synonym synonym(int r) {
        boolean misapplied = cell(r, "taxonomicStatus").toLowerCase(Locale.ROOT).contains(MISAPPLIED);
        return new Synonym(name(r), cell(r, "scientificNameAuthorship"), misapplied, cell(r, "nameAccordingTo"));
    }

    private void taxon(int r) {
        String rank = cell(r, "taxonRank").toLowerCase(Locale.ROOT);
        String fileId = cell(r, "taxonID").isEmpty() ? name(r) : cell(r, "taxonID");
        List<Vernacular> vernacular = new ArrayList<>();
        for (String name : cell(r, "vernacularName").split("\\s*\\|\\s*")) {
            if (!name.isEmpty()) {
                vernacular.add(
                        new Vernacular(name, cell(r, "language").isEmpty() ? UNDETERMINED : cell(r, "language")));
            }
        }
        StudyRow row = StudyRow.of(name(r))
                .withRank(rank.isEmpty() ? "species" : rank)
                .withDescription(cell(r, "taxonRemarks"))
                .withNames(new StudyRow.Names(
                        cell(r, "scientificNameAuthorship"), synonyms.getOrDefault(fileId, List.of()), vernacular));
        if (byId.putIfAbsent(row.id(), row) != null || byFileId.putIfAbsent(fileId, row) != null) {
            problem(r, "scientificName", "'" + name(r) + "' stands in the file already. Remove one of the two.", true);
        }
    }

    /** Puts a taxon into its parent: the one that the row points at, or else the genus or family that it names. */
    private void place(int r) {
        StudyRow row = byId.get(Slug.of(name(r)));
        if (row == null) {
            return;
        }
        String pointed = cell(r, "parentNameUsageID");
        StudyRow parent = pointed.isEmpty() ? named(cell(r, "parentNameUsage")) : byFileId.get(pointed);
        if (parent == null && !pointed.isEmpty()) {
            problem(
                    r,
                    "parentNameUsageID",
                    "The file names no taxon '" + pointed + "', so '" + row.label() + "' stands at the top.",
                    false);
        }
        if (parent == null && pointed.isEmpty()) {
            parent = higher(r, row);
        }
        if (parent != null) {
            byId.put(row.id(), row.withParent(parent.id()));
        }
    }

    private @Nullable StudyRow named(String name) {
        return name.isEmpty() ? null : byId.get(Slug.of(name));
    }

    /** The lowest higher taxon that a row names in terms of its own; made if no row is about it. */
    private @Nullable StudyRow higher(int r, StudyRow row) {
        StudyRow parent = null;
        for (String rank : List.of("order", "family", "genus")) {
            String name = cell(r, rank);
            if (!name.isEmpty() && !Slug.of(name).equals(row.id()) && Ranks.mayContain(rank, row.rank())) {
                String above = parent == null ? null : parent.id();
                parent = byId.computeIfAbsent(
                        Slug.of(name), id -> StudyRow.of(name).withRank(rank).withParent(above));
            }
        }
        return parent;
    }
}
