package org.polyclave.server.importing;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.table.SheetMapping;
import org.polyclave.files.table.UnpreparedTable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.access.StudyAccess;
import org.polyclave.server.history.ChangePreview;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.importing.ImportService.ImportAnswer;
import org.polyclave.server.importing.persistence.SheetMappingMapper;
import org.polyclave.server.job.Job;
import org.polyclave.server.job.JobAnswers;
import org.polyclave.server.job.JobKind;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.PictureStore;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.change.StudyJoin;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.rules.Problem;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/** Reads an uploaded file and does with it what was asked. */
@Component
class ImportJob implements JobKind {
    static final String KIND = "import";

    private static final String NAMELESS = "study";
    /** Part of the work after which a file is read, where it is to be written or compared. */
    private static final double READ = 0.6;

    /** The same of a new study, of which the database takes the greater part of the time. */
    private static final double READ_TO_WRITE = 0.3;

    private static final double WRITTEN = 0.9;
    private static final int STEPS = 1_000;

    private final Uploads uploads;
    private final StudyStore store;
    private final StudyWriter writer;
    private final StudyAccess access;
    private final PictureStore pictures;
    private final SheetMappingMapper mappings;
    private final JobAnswers answers;
    private final TransactionTemplate atOnce;
    private final JsonMapper json;

    ImportJob(
            Uploads uploads,
            StudyStore store,
            StudyWriter writer,
            StudyAccess access,
            PictureStore pictures,
            SheetMappingMapper mappings,
            JobAnswers answers,
            PlatformTransactionManager transactions,
            JsonMapper json) {
        this.uploads = uploads;
        this.store = store;
        this.writer = writer;
        this.access = access;
        this.pictures = pictures;
        this.mappings = mappings;
        this.answers = answers;
        this.atOnce = new TransactionTemplate(transactions);
        this.json = json;
    }

    @Override
    public String name() {
        return KIND;
    }

    @Override
    public String answer(Job job, CancelSignal cancel, Progress progress, BestSoFar soFar) {
        ImportRequest request = json.readValue(job.question(), ImportRequest.class);
        Uploads.UploadedFile file = uploads.find(request.upload(), job.account());
        ReadingWatch watch = new ReadingWatch(cancel, progress);
        Long study = job.ofStudy();
        OpenStudy open = study == null ? null : access.open(study, job.account(), Role.EDITOR);
        return switch (request.step()) {
            case LOOK -> json.writeValueAsString(ImportAnswer.sheet(look(file, request, job.account(), watch)));
            case PREVIEW ->
                json.writeValueAsString(
                        open == null ? preview(file, request, watch) : previewInto(open, file, request, watch));
            case IMPORT ->
                open == null ? create(job, file, request, watch, progress) : into(job, open, file, request, watch);
        };
    }

    private SheetView look(Uploads.UploadedFile file, ImportRequest request, long account, ReadingWatch watch) {
        Boolean transposed = request.transposed();
        UnpreparedTable.TableSample look =
                UnpreparedTable.look(file.bytes(), file.name(), request.sheet(), watch.part(0, READ));
        uploads.noteSignature(request.upload(), account, request.sheet(), look.signature());
        boolean across = look.proposal().transposed();
        Optional<SheetMapping> known =
                mappings.find(account, look.signature()).map(m -> json.readValue(m, SheetMapping.class));
        boolean turned = transposed != null
                ? transposed
                : known.map(SheetMapping::transposed).orElse(across);
        UnpreparedTable.TableSample shown = turned == across
                ? look
                : UnpreparedTable.look(file.bytes(), file.name(), request.sheet(), turned, watch.part(READ, 1));
        Optional<SheetMapping> fitting = known.filter(m -> m.transposed() == turned
                && m.columns().size() == shown.proposal().columns().size());
        return new SheetView(shown.rows(), fitting.orElse(shown.proposal()), fitting.isPresent());
    }

    private ImportAnswer preview(Uploads.UploadedFile file, ImportRequest request, ReadingWatch watch) {
        ParsedImport read = ParsedImport.of(file, request, request.choices(), watch);
        return ImportAnswer.preview(read.with(ofPictures(null, read)).preview(), null);
    }

    private List<Problem> ofPictures(@Nullable Long study, ParsedImport read) {
        return pictures.problems(study, read.study().pictures()).stream()
                .map(Problem::file)
                .toList();
    }

    /** What the file would change in a study; nothing is changed. */
    private ImportAnswer previewInto(
            OpenStudy open, Uploads.UploadedFile file, ImportRequest request, ReadingWatch watch) {
        Study now = store.load(open.id()).study();
        ParsedImport parsed = ParsedImport.of(file, request, request.choices().joining(now), watch.part(0, READ));
        ParsedImport read = parsed.with(ofPictures(open.id(), parsed));
        if (!read.usable()) {
            return ImportAnswer.preview(read.preview(), null);
        }
        StudyJoin.JoinedStudy joined = StudyJoin.of(now, read.study());
        watch.part(READ, 1).at(1, 2);
        ParsedImport both = read.with(joined.problems());
        return ImportAnswer.preview(
                both.preview(), both.usable() ? ChangePreview.of(writer.plan(open, s -> joined.study())) : null);
    }

    /** Makes a new study of the file, or nothing. */
    private String create(
            Job job, Uploads.UploadedFile file, ImportRequest request, ReadingWatch watch, Progress progress) {
        ParsedImport read = ParsedImport.of(file, request, request.choices(), watch.part(0, READ_TO_WRITE));
        Study study = read.usableStudy();
        String given = request.title().strip();
        String chosen = given.isEmpty() ? study.title() : given;
        // An address is made of what a person called the study, never of what their file happened to be called.
        boolean known = !read.isNamedByFile() && chosen.equals(study.title());
        String address = known ? study.slug() : given.isEmpty() ? NAMELESS : Slug.of(given, NAMELESS);
        ReadingWatch writing = watch.part(READ_TO_WRITE, WRITTEN);
        ImportAnswer answer = written(
                job,
                file,
                request,
                () -> ImportAnswer.created(store.create(
                        study.named(address, chosen),
                        job.account(),
                        share -> writing.at(Math.round(STEPS * share), STEPS))));
        // It is written, so nobody can cancel it any more.
        progress.report(WRITTEN);
        // Whoever imported a study opens it next: a large one is read while they still see that something is under way.
        store.load(Objects.requireNonNull(answer.slug()));
        return json.writeValueAsString(answer);
    }

    /** Joins the file to a study, as one undoable change. */
    private String into(Job job, OpenStudy open, Uploads.UploadedFile file, ImportRequest request, ReadingWatch watch) {
        Study known = store.load(open.id()).study();
        Study read = ParsedImport.of(file, request, request.choices().joining(known), watch.part(0, READ))
                .usableStudy();
        watch.part(READ, WRITTEN).at(0, 1);
        return json.writeValueAsString(written(
                job,
                file,
                request,
                () -> ImportAnswer.joined(writer.replace(
                        open, Objects.requireNonNull(request.baseRevision()), now -> joined(now, read)))));
    }

    private static Study joined(Study now, Study file) {
        StudyJoin.JoinedStudy joined = StudyJoin.of(now, file);
        List<String> blocking = joined.problems().stream()
                .filter(Problem::blocking)
                .map(Problem::sentence)
                .toList();
        if (!blocking.isEmpty()) {
            throw Problems.unreadable(blocking);
        }
        return joined.study();
    }

    /**
     * Writes, and notes in the same transaction that the job is done: it may be run again after a crash, and is not to import
     * twice.
     */
    private ImportAnswer written(
            Job job, Uploads.UploadedFile file, ImportRequest request, Supplier<ImportAnswer> write) {
        return Objects.requireNonNull(atOnce.execute(transaction -> {
            ImportAnswer answer = write.get();
            remember(file, request, job.account());
            answers.finish(job, json.writeValueAsString(answer));
            return answer;
        }));
    }

    private void remember(Uploads.UploadedFile file, ImportRequest request, long account) {
        if (request.mapping() != null) {
            String signature = file.signatureOf(request.sheet())
                    .orElseGet(() -> UnpreparedTable.look(file.bytes(), file.name(), request.sheet(), ReadingWatch.NONE)
                            .signature());
            mappings.remember(account, signature, json.writeValueAsString(request.mapping()));
        }
    }
}
