package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.rules.NeverAsked;

/** Makes characters of the columns of a wide table: one of each that has a name of its own and holds something. */
final class CharacterHeadings {
    private final Sheet sheet;
    private final List<Integer> taxonRows;
    private final CharacterColumns described;
    private final TableChoices choices;
    private final TableReport report;
    private final Map<Integer, StudyCharacter> characters = new LinkedHashMap<>();
    private final List<ImportedStudy.Column> columns = new ArrayList<>();
    private final List<String> setAside = new ArrayList<>();
    private final Map<String, Integer> columnOf = new HashMap<>();

    CharacterHeadings(
            Sheet sheet,
            List<Integer> taxonRows,
            CharacterColumns described,
            TableChoices choices,
            TableReport report) {
        this.sheet = sheet;
        this.taxonRows = taxonRows;
        this.described = described;
        this.choices = choices;
        this.report = report;
    }

    /** The characters, by column. */
    Map<Integer, StudyCharacter> characters() {
        return characters;
    }

    /** How each column was taken. */
    List<ImportedStudy.Column> columns() {
        return columns;
    }

    /** Headings of columns that are never asked or shown. */
    List<String> setAside() {
        return setAside;
    }

    void read(ReadingWatch watch) {
        for (int c = 1; c < sheet.columns(); c++) {
            watch.at(c, sheet.columns());
            String label = sheet.cell(0, c);
            if (label.startsWith("#") || isEmpty(c)) {
                continue;
            }
            if (NeverAsked.isHeading(label)) {
                setAside.add(label);
                report.notice(0, c, "'" + label + "' was set aside: taste and edibility are never asked or shown.");
            } else if (isNamed(c, label)) {
                character(c, label);
            }
        }
        characters.replaceAll((c, character) -> described.withConditions(c, character, characters.values()));
    }

    /** Programs leave such columns at the right of what people typed. */
    private boolean isEmpty(int c) {
        for (int r = 0; r < sheet.rows(); r++) {
            if (!sheet.cell(r, c).isEmpty()) {
                return false;
            }
        }
        return true;
    }

    private boolean isNamed(int c, String label) {
        String id = Slug.of(label);
        if (id.isEmpty()) {
            report.problem(0, c, "the character has no name. Write one in the first row, or remove the column.");
            return false;
        }
        Integer other = columnOf.putIfAbsent(id, c);
        if (other == null) {
            return true;
        }
        String theirs = sheet.cell(0, other);
        boolean same = label.equals(theirs);
        report.problem(
                0,
                c,
                "'" + label + "' is called like " + (same ? "" : "'" + theirs + "' in ") + "column "
                        + sheet.place(0, other).column()
                        + (same ? "" : ": names need letters or digits that differ") + ". Rename one of them.");
        return false;
    }

    private void character(int c, String label) {
        List<String> texts = textsOf(c);
        StudyCharacter character = described.read(c, label, texts);
        characters.put(c, character);
        boolean guessed = described.text(c, "type").isEmpty();
        if (guessed && TwoMeasures.areMost(texts)) {
            report.notice(
                    0,
                    c,
                    "Most cells of '" + label
                            + "' hold two measures. 'Choose what each column holds' (length × width in one cell) makes two"
                            + " characters of them; or write two columns.");
        }
        boolean open = guessed
                && described.text(c, "unit").isEmpty()
                && !choices.types().containsKey(label)
                && described.guess(c, label, texts).open();
        columns.add(new ImportedStudy.Column(
                sheet.place(0, c).column(),
                label,
                character.type(),
                character.unit(),
                character.organ(),
                character.states().stream().map(StudyState::label).toList(),
                texts.size(),
                guessed,
                open));
    }

    /** The cells of a column that say something of their own. */
    private List<String> textsOf(int c) {
        List<String> texts = new ArrayList<>();
        for (int r : taxonRows) {
            String text = sheet.cell(r, c);
            if (!text.isEmpty() && !CellNotation.isSpecial(text)) {
                texts.add(text);
            }
        }
        return texts;
    }
}
