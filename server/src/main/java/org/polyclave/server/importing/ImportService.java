package org.polyclave.server.importing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.source.ImportAccount;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.UnreadCell;
import org.polyclave.files.table.SheetMapping;
import org.polyclave.files.table.TableChoices;
import org.polyclave.files.table.TableChoices.CellCorrection;
import org.polyclave.files.table.TableReader;
import org.polyclave.files.table.UnpreparedTable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.account.Account;
import org.polyclave.server.history.ChangePreview;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.importing.persistence.SheetMappingMapper;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.PictureStore;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.change.Coverings;
import org.polyclave.study.change.Retype;
import org.polyclave.study.change.StudyJoin;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.rules.Problem;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads uploaded matrices: first a preview that changes nothing, then a new study, or one change of
 * a study that exists, or nothing.
 */
@Service
public class ImportService {
    private static final String NAMELESS = "study";

    private final StudyStore store;
    private final StudyWriter writer;

    private final PictureStore pictures;
    private final SheetMappingMapper mappings;
    private final JsonMapper json;

    ImportService(
            StudyStore store, StudyWriter writer, PictureStore pictures, SheetMappingMapper mappings, JsonMapper json) {
        this.store = store;
        this.writer = writer;
        this.pictures = pictures;
        this.mappings = mappings;
        this.json = json;
    }

    /**
     * How an upload is to be read.
     *
     * @param types by label, types chosen in place of the proposed ones
     * @param mapping what its columns hold, for a table that nobody prepared
     * @param sheet sheet of a workbook; empty: the first that holds something
     * @param coverings whether what stands below its taxa is all there is of them, where somebody has said so
     * @param corrections of cells that could not be read
     */
    public record ImportOptions(
            Map<String, Retype.Choice> types,
            @Nullable SheetMapping mapping,
            String sheet,
            List<Coverings.Answer> coverings,
            List<CellCorrection> corrections) {
        TableChoices choices() {
            return new TableChoices(types, corrections);
        }
    }

    /**
     * A table as it stands.
     *
     * @param remembered whether the mapping is the one with which such a table was read before
     */
    public record SheetView(List<List<String>> rows, SheetMapping mapping, boolean remembered) {}

    /**
     * The first rows of a table and how it may be read.
     *
     * @param transposed whether its taxa stand across, as somebody chose; null: as it looks
     */
    public SheetView look(byte[] bytes, String fileName, String sheet, @Nullable Boolean transposed, Account who) {
        UnpreparedTable.TableSample look = UnpreparedTable.look(bytes, fileName, sheet);
        boolean across = look.proposal().transposed();
        Optional<SheetMapping> known =
                mappings.find(who.id(), look.signature()).map(m -> json.readValue(m, SheetMapping.class));
        boolean turned = transposed != null
                ? transposed
                : known.map(SheetMapping::transposed).orElse(across);
        UnpreparedTable.TableSample shown =
                turned == across ? look : UnpreparedTable.look(bytes, fileName, sheet, turned);
        Optional<SheetMapping> fitting = known.filter(m -> m.transposed() == turned
                && m.columns().size() == shown.proposal().columns().size());
        return new SheetView(shown.rows(), fitting.orElse(shown.proposal()), fitting.isPresent());
    }

    private void remember(byte[] bytes, String fileName, ImportOptions wish, long account) {
        if (wish.mapping() != null) {
            String signature =
                    UnpreparedTable.look(bytes, fileName, wish.sheet()).signature();
            mappings.remember(account, signature, json.writeValueAsString(wish.mapping()));
        }
    }

    /**
     * What an upload was understood as.
     *
     * @param title empty where the file has none but its name
     * @param usable whether it can be made into a study: nothing is wrong, and no unit is to be asked for
     * @param sheets names of the sheets of a workbook, of which one may be chosen
     * @param coverings what may be asked of the taxa with others, or with sexes and stages, below them
     * @param unread cells that could not be read, the first of them; what is said of them is not among the problems
     * @param account what became of every cell; null where the file is not a table of taxa and characters
     */
    public record Preview(
            boolean usable,
            String title,
            int rows,
            int characters,
            int scores,
            int specimens,
            List<ImportedStudy.Column> columns,
            List<String> rowNames,
            List<Problem> problems,
            List<String> sheets,
            List<Coverings.Asked> coverings,
            List<UnreadCell> unread,
            int unreadCount,
            @Schema(nullable = true) @Nullable ImportAccount account) {}

    /** More are not corrected by hand; they are one slip that is made everywhere. */
    private static final int MOST_UNREAD = 500;

    /** What an upload would do to a study that exists. */
    public record ImportInto(
            Preview file, @Schema(nullable = true) @Nullable ChangePreview changes) {}

    public Preview preview(byte[] bytes, String fileName, ImportOptions wish) {
        ParsedImport read = read(bytes, fileName, wish);
        return preview(read.with(pictures.problems(null, read.study().pictures())), fileName);
    }

    /** @param asked the study before anything was said of coverings */
    private record ParsedImport(
            ImportedStudy file, Study asked, Study study, List<Problem> problems, List<String> sheets) {
        boolean usable() {
            return problems.stream().noneMatch(Problem::blocking)
                    && open().findAny().isEmpty();
        }

        /** Columns of which somebody has to say in which unit their bare numbers are. */
        Stream<ImportedStudy.Column> open() {
            return file.columns().stream().filter(ImportedStudy.Column::open);
        }

        ParsedImport with(List<String> sentences) {
            List<Problem> more = new ArrayList<>(problems);
            sentences.forEach(s -> more.add(Problem.file(s)));
            return new ParsedImport(file, asked, study, more, sheets);
        }
    }

    private static ParsedImport read(byte[] bytes, String fileName, ImportOptions wish) {
        return read(bytes, fileName, wish, wish.choices());
    }

    private static ParsedImport read(byte[] bytes, String fileName, ImportOptions wish, TableChoices choices) {
        SheetMapping mapping = wish.mapping();
        ImportedStudy file = mapping == null
                ? MatrixFiles.read(bytes, fileName, wish.sheet(), choices)
                : UnpreparedTable.read(bytes, fileName, wish.sheet(), mapping, choices);
        List<String> sheets = TableReader.sheetNames(bytes);
        if (wish.types().isEmpty()) {
            return new ParsedImport(
                    file, file.study(), Coverings.answered(file.study(), wish.coverings()), file.problems(), sheets);
        }
        Retype.Retyped retyped = Retype.of(file.study(), wish.types());
        List<Problem> problems = new ArrayList<>(file.problems());
        problems.addAll(retyped.problems());
        return new ParsedImport(
                file, retyped.study(), Coverings.answered(retyped.study(), wish.coverings()), problems, sheets);
    }

    private static Preview preview(ParsedImport read, String fileName) {
        Map<String, StudyCharacter> characters = new HashMap<>();
        read.study().characters().forEach(c -> characters.put(c.label(), c));
        List<ImportedStudy.Column> columns = new ArrayList<>();
        for (ImportedStudy.Column column : read.file().columns()) {
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
        return new Preview(
                read.usable(),
                isNamedByFile(read.study(), fileName) ? "" : read.study().title(),
                read.study().rows().size(),
                read.study().characters().size(),
                read.study().scores().size(),
                read.study().specimens().size(),
                columns,
                read.study().rows().stream().map(r -> r.name()).toList(),
                apartFromCells(read),
                read.sheets(),
                Coverings.of(read.asked()),
                read.file().unread().stream().limit(MOST_UNREAD).toList(),
                read.file().unread().size(),
                read.file().account());
    }

    private static boolean isNamedByFile(Study study, String fileName) {
        return study.title().equals(TableReader.titleOf(fileName));
    }

    private static List<Problem> apartFromCells(ParsedImport read) {
        Set<Problem> ofCells =
                read.file().unread().stream().map(UnreadCell::problem).collect(Collectors.toSet());
        return read.problems().stream().filter(p -> !ofCells.contains(p)).toList();
    }

    /** Makes a new study of the upload, or nothing. */
    public String create(byte[] bytes, String fileName, @Nullable String title, ImportOptions wish, Account who) {
        Study study = usable(read(bytes, fileName, wish));
        remember(bytes, fileName, wish, who.id());
        String given = title == null ? "" : title.strip();
        String chosen = given.isEmpty() ? study.title() : given;
        // An address is made of what a person called the study, never of what their file happened to be called.
        boolean ofFile = isNamedByFile(study, fileName);
        boolean known = !ofFile && chosen.equals(study.title());
        String address = known ? study.slug() : given.isEmpty() ? NAMELESS : Slug.of(given, NAMELESS);
        String slug = store.create(study.named(address, chosen), who.id());
        // Whoever imported a study opens it next: a large one is read while they still see that something is under way.
        store.load(slug);
        return slug;
    }

    /** What an upload would change in a study; nothing is changed. */
    public ImportInto previewInto(OpenStudy open, byte[] bytes, String fileName, ImportOptions wish) {
        Study now = store.load(open.id()).study();
        ParsedImport file = read(bytes, fileName, wish, wish.choices().joining(now));
        ParsedImport read = file.with(pictures.problems(open.id(), file.study().pictures()));
        if (!read.usable()) {
            return new ImportInto(preview(read, fileName), null);
        }
        StudyJoin.JoinedStudy joined = StudyJoin.of(now, read.study());
        List<Problem> problems = new ArrayList<>(read.problems());
        problems.addAll(joined.problems());
        ParsedImport both = new ParsedImport(read.file(), read.asked(), read.study(), problems, read.sheets());
        return new ImportInto(
                preview(both, fileName),
                both.usable() ? ChangePreview.of(writer.plan(open, s -> joined.study())) : null);
    }

    /** Joins an upload to a study, as one undoable change. */
    public StudyWriter.Written into(
            OpenStudy open, byte[] bytes, String fileName, ImportOptions wish, long baseRevision) {
        Study known = store.load(open.id()).study();
        Study file = usable(read(bytes, fileName, wish, wish.choices().joining(known)));
        remember(bytes, fileName, wish, open.account());
        return writer.replace(open, baseRevision, now -> {
            StudyJoin.JoinedStudy joined = StudyJoin.of(now, file);
            List<String> blocking = joined.problems().stream()
                    .filter(Problem::blocking)
                    .map(Problem::sentence)
                    .toList();
            if (!blocking.isEmpty()) {
                throw Problems.unreadable(blocking);
            }
            return joined.study();
        });
    }

    private static Study usable(ParsedImport read) {
        if (!read.usable()) {
            Stream<String> wrong =
                    read.problems().stream().filter(Problem::blocking).map(Problem::sentence);
            Stream<String> asked =
                    read.open().map(c -> "Choose the unit of the numbers of '" + c.character() + "' that have none.");
            throw Problems.unreadable(Stream.concat(wrong, asked).toList());
        }
        return read.study();
    }
}
