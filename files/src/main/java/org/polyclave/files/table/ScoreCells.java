package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.rules.StudyRules;

/** Reads the cells of a table that are scores, with what the table says of their origin. */
final class ScoreCells {
    private final Sheet sheet;
    private final TableReport report;

    ScoreCells(Sheet sheet, TableReport report) {
        this.sheet = sheet;
        this.report = report;
    }

    /** Every score; texts that are none are told. */
    List<StudyScore> read(
            List<Integer> taxonRows,
            Map<Integer, StudyRow> rowAt,
            Map<Integer, StudyCharacter> characterAt,
            ReadingWatch watch) {
        List<StudyScore> scores = new ArrayList<>();
        for (int r : taxonRows) {
            watch.at(r, sheet.rows());
            StudyRow row = rowAt.get(r);
            for (Map.Entry<Integer, StudyCharacter> column : characterAt.entrySet()) {
                String text = sheet.cell(r, column.getKey());
                if (text.isEmpty() || row == null) {
                    continue;
                }
                CellNotation.ParseResult reading = CellNotation.parse(text, column.getValue());
                if (reading instanceof CellNotation.Rejected rejected) {
                    report.unread(r, column.getKey(), rejected.reason(), rejected.nearest());
                } else {
                    ScoreValue value = ((CellNotation.Parsed) reading).value();
                    scores.add(score(row, column.getValue(), value, r, column.getKey()));
                }
            }
        }
        return scores;
    }

    private StudyScore score(StudyRow row, StudyCharacter character, ScoreValue value, int r, int c) {
        Sheet.Remark remark = sheet.remark(r, c);
        if (remark == null) {
            remark = Sheet.Remark.note("");
        }
        return new StudyScore(
                row.id(),
                character.id(),
                value,
                sheet.cell(r, c),
                basis(remark.basis(), r, c),
                remark.source(),
                remark.doubtful(),
                remark.note(),
                months(remark.months(), r, c),
                remark.scorer(),
                date(remark.date(), r, c),
                remark.concept());
    }

    /** What a table does not say was not checked by anybody here. */
    private StudyScore.Basis basis(String text, int r, int c) {
        for (StudyScore.Basis basis : StudyScore.Basis.values()) {
            if (basis.name().equalsIgnoreCase(text)) {
                return basis;
            }
        }
        if (!text.isEmpty()) {
            report.problem(r, c, "'" + text + "' is not a basis. Use specimens, reference, judgement or import.");
        }
        return StudyScore.Basis.IMPORT;
    }

    private List<Integer> months(String text, int r, int c) {
        if (text.isEmpty()) {
            return List.of();
        }
        Optional<List<Integer>> months = CharacterColumns.months(text);
        if (months.isEmpty()) {
            report.problem(r, c, "'" + text + "' is not a span of months. Write for example 'May–Jul'.");
        }
        return months.orElse(List.of());
    }

    private String date(String text, int r, int c) {
        if (StudyRules.isDate(text)) {
            return text;
        }
        report.problem(r, c, "'" + text + "' is not a date. Write it as 2031-05-04.");
        return "";
    }
}
