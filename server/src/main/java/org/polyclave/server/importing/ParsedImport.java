package org.polyclave.server.importing;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.source.UnreadCell;
import org.polyclave.files.table.SheetMapping;
import org.polyclave.files.table.TableChoices;
import org.polyclave.files.table.TableReader;
import org.polyclave.files.table.UnpreparedTable;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.change.Coverings;
import org.polyclave.study.change.Retype;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.rules.Problem;

/**
 * A file as it was read, with what people decided of it.
 *
 * @param asked the study before anything was said of coverings
 */
record ParsedImport(
        String fileName, ImportedStudy file, Study asked, Study study, List<Problem> problems, List<String> sheets) {
    /** More are not corrected by hand; they are one slip that is made everywhere. */
    private static final int MOST_UNREAD = 500;

    static ParsedImport of(
            Uploads.UploadedFile upload, ImportRequest request, TableChoices choices, ReadingWatch watch) {
        SheetMapping mapping = request.mapping();
        ImportedStudy file = mapping == null
                ? MatrixFiles.read(upload.bytes(), upload.name(), request.sheet(), choices, watch)
                : UnpreparedTable.read(upload.bytes(), upload.name(), request.sheet(), mapping, choices, watch);
        List<Problem> problems = new ArrayList<>(file.problems());
        Study asked = file.study();
        if (!request.types().isEmpty()) {
            Retype.Retyped retyped = Retype.of(asked, request.types());
            problems.addAll(retyped.problems());
            asked = retyped.study();
        }
        return new ParsedImport(
                upload.name(),
                file,
                asked,
                Coverings.answered(asked, request.coverings()),
                problems,
                TableReader.sheetNames(upload.bytes()));
    }

    boolean usable() {
        return problems.stream().noneMatch(Problem::blocking)
                && open().findAny().isEmpty();
    }

    /** Columns of which somebody has to say in which unit their bare numbers are. */
    private Stream<ImportedStudy.Column> open() {
        return file.columns().stream().filter(ImportedStudy.Column::open);
    }

    ParsedImport with(List<Problem> more) {
        List<Problem> all = new ArrayList<>(problems);
        all.addAll(more);
        return new ParsedImport(fileName, file, asked, study, all, sheets);
    }

    /** Whether the study has no title but the name of its file. */
    boolean isNamedByFile() {
        return study.title().equals(TableReader.titleOf(fileName));
    }

    /** The study, if nothing is wrong with it. */
    Study usableStudy() {
        if (!usable()) {
            Stream<String> wrong = problems.stream().filter(Problem::blocking).map(Problem::sentence);
            Stream<String> asked =
                    open().map(c -> "Choose the unit of the numbers of '" + c.character() + "' that have none.");
            throw Problems.unreadable(Stream.concat(wrong, asked).toList());
        }
        return study;
    }

    ImportPreview preview() {
        return new ImportPreview(
                usable(),
                isNamedByFile() ? "" : study.title(),
                study.rows().size(),
                study.characters().size(),
                study.scores().size(),
                study.specimens().size(),
                columnsNow(),
                study.rows().stream().map(r -> r.name()).toList(),
                apartFromCells(),
                sheets,
                Coverings.of(asked),
                file.unread().stream().limit(MOST_UNREAD).toList(),
                file.unread().size(),
                file.account(),
                file.selection());
    }

    /** The columns with the types that were chosen for them. */
    private List<ImportedStudy.Column> columnsNow() {
        Map<String, StudyCharacter> characters = new HashMap<>();
        study.characters().forEach(c -> characters.put(c.label(), c));
        List<ImportedStudy.Column> columns = new ArrayList<>();
        for (ImportedStudy.Column column : file.columns()) {
            StudyCharacter now = characters.get(column.character());
            columns.add(
                    now == null
                            ? column
                            : new ImportedStudy.Column(
                                    column.column(),
                                    column.character(),
                                    now.type(),
                                    now.unit(),
                                    now.organ(),
                                    now.states().stream().map(s -> s.label()).toList(),
                                    column.scored(),
                                    column.guessed(),
                                    column.open()));
        }
        return columns;
    }

    private List<Problem> apartFromCells() {
        Set<Problem> ofCells = file.unread().stream().map(UnreadCell::problem).collect(Collectors.toSet());
        return problems.stream().filter(p -> !ofCells.contains(p)).toList();
    }
}
