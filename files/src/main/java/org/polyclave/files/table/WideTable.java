package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportAccount;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.Problem;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.rule.RuleWording;

/** Reads a table in the wide form: taxa down, characters across, and what describes either beside a {@code #}. */
final class WideTable {
    private static final double GUESSED = 0.1;
    private static final double CHARACTERS_READ = 0.3;
    private static final double SCORES_READ = 0.8;

    private final String title;
    private final TableReport report;
    private final TableLines lines;
    /** The table with what is meant in columns of which it does not say what they hold. */
    private final Sheet sheet;

    private final Map<Integer, StudyRow> rowAt = new LinkedHashMap<>();
    private final CharacterHeadings headings;
    private final ReadingWatch watch;

    /**
     * @param typed the table as it was typed
     * @param problems what was already found
     */
    WideTable(Sheet typed, String title, List<Problem> problems, TableChoices choices, ReadingWatch watch) {
        this.title = title;
        this.watch = watch;
        report = new TableReport(typed, problems);
        lines = TableLines.of(typed, report);
        sheet = lines.areWithinLimits(typed, report)
                ? new GuessedColumns(typed, lines.taxa(), c -> isGuessed(typed, c)).asMeant(watch.part(0, GUESSED))
                : Sheet.empty();
        CharacterColumns described = new CharacterColumns(lines.about(), lines.aboutRow(), choices, report);
        headings = new CharacterHeadings(sheet, lines.taxa(), described, choices, report);
    }

    private boolean isGuessed(Sheet typed, int c) {
        boolean told = Stream.of("type", "states", "unit")
                .map(lines.about()::get)
                .anyMatch(row -> row != null && c < row.size() && !row.get(c).isEmpty());
        return !told && !typed.cell(0, c).startsWith("#");
    }

    /**
     * @param ledger of the cells of the file; null where nobody asks what became of each
     * @param prepared whether the file is read as it stands: nobody was asked what its colours and lines mean
     */
    ImportedStudy read(@Nullable CellLedger ledger, boolean prepared) {
        if (sheet.rows() == 0) {
            return result(List.of(), null);
        }
        readRows();
        headings.read(watch.part(GUESSED, CHARACTERS_READ));
        applyRules();
        List<StudyScore> scores = new ScoreCells(sheet, report)
                .read(lines.taxa(), rowAt, headings.characters(), watch.part(CHARACTERS_READ, SCORES_READ));
        return result(scores, ledger == null ? null : account(ledger, prepared));
    }

    private ImportAccount account(CellLedger ledger, boolean prepared) {
        CellFates fates = new CellFates(sheet, ledger, report);
        if (prepared) {
            fates.tellMarks(lines.taxa(), headings.characters().keySet());
        }
        int taxa = (int) rowAt.keySet().stream().filter(r -> r >= 0).count();
        return fates.account(headings.characters().keySet(), headings.setAside(), taxa, watch.part(SCORES_READ, 1));
    }

    private void readRows() {
        Map<String, Integer> columnOf = new HashMap<>();
        for (int c = 1; c < sheet.columns(); c++) {
            String heading = sheet.cell(0, c);
            if (heading.startsWith("#")) {
                String name = heading.substring(1).strip().toLowerCase(Locale.ROOT);
                if (RowColumns.KNOWN.contains(name)) {
                    columnOf.put(name, c);
                } else {
                    report.problem(
                            0,
                            c,
                            "'" + heading + "' describes nothing known. Use one of #"
                                    + String.join(", #", RowColumns.KNOWN) + ".");
                }
            }
        }
        RowColumns reading = new RowColumns(sheet, columnOf, rowAt, report);
        lines.taxa().forEach(reading::read);
        reading.addTaxaOfStages();
        reading.resolveParents();
        reading.chooseRanks();
    }

    /** What holds in every study must hold here; each violation is told at its place in the table. */
    private void applyRules() {
        Map<String, Integer> rowOf = new HashMap<>();
        rowAt.forEach((r, row) -> rowOf.put("row/" + row.id(), Math.max(0, r)));
        Map<String, Integer> columnOf = new HashMap<>();
        headings.characters().forEach((c, character) -> columnOf.put("character/" + character.id(), c));
        for (StudyRules.Violation violation : StudyRules.check(study(List.of()))) {
            Integer row = rowOf.get(violation.place());
            int column = row == null
                    ? columnOf.getOrDefault(violation.place(), 0)
                    : Math.max(0, sheet.row(0).indexOf("#" + violation.field()));
            report.problem(row == null ? 0 : row, column, RuleWording.sentence(violation));
        }
    }

    private Study study(List<StudyScore> scores) {
        return new Study(
                Slug.of(title, "matrix"),
                title,
                StudyScope.EMPTY,
                new ArrayList<>(rowAt.values()),
                List.of(),
                new ArrayList<>(headings.characters().values()),
                scores);
    }

    private ImportedStudy result(List<StudyScore> scores, @Nullable ImportAccount account) {
        List<Problem> all = new ArrayList<>(report.problems());
        report.unread().forEach(u -> all.add(u.problem()));
        return new ImportedStudy(
                study(scores), all, headings.columns(), headings.setAside(), "", report.unread(), account, null);
    }
}
