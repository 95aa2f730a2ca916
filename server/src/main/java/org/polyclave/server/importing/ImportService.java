package org.polyclave.server.importing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.account.Account;
import org.polyclave.server.history.ChangePreview;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.job.Job;
import org.polyclave.server.job.JobScope;
import org.polyclave.server.job.JobService;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads files that were sent: how they look, a preview that changes nothing, then a new study, or one change of a study that
 * exists, or nothing. Each is a job, because a million cells take a while.
 */
@Service
public class ImportService {
    private final JobService jobs;
    private final Uploads uploads;
    private final JsonMapper json;

    ImportService(JobService jobs, Uploads uploads, JsonMapper json) {
        this.jobs = jobs;
        this.uploads = uploads;
        this.json = json;
    }

    /**
     * What an import comes to: what its step asked for, and nothing else.
     *
     * @param changes what the file would do to the study that it is to join; null if it cannot
     * @param slug of the new study
     * @param written the change of the study that it joined
     */
    public record ImportAnswer(
            @Schema(nullable = true) @Nullable SheetView sheet,
            @Schema(nullable = true) @Nullable ImportPreview preview,
            @Schema(nullable = true) @Nullable ChangePreview changes,
            @Schema(nullable = true) @Nullable String slug,
            @Schema(nullable = true) StudyWriter.@Nullable Written written) {
        static ImportAnswer sheet(SheetView sheet) {
            return new ImportAnswer(sheet, null, null, null, null);
        }

        static ImportAnswer preview(ImportPreview preview, @Nullable ChangePreview changes) {
            return new ImportAnswer(null, preview, changes, null, null);
        }

        static ImportAnswer created(String slug) {
            return new ImportAnswer(null, null, null, slug, null);
        }

        static ImportAnswer joined(StudyWriter.Written written) {
            return new ImportAnswer(null, null, null, null, written);
        }
    }

    /** An import, or how far it is. */
    public record ImportProgress(
            UUID id,
            Job.Status status,
            double progress,
            @Schema(nullable = true) @Nullable ImportAnswer answer) {}

    public ImportProgress begin(Account who, ImportRequest request, Duration patience) {
        return begin(JobScope.of(who), 0, request, patience);
    }

    public ImportProgress begin(OpenStudy open, ImportRequest request, Duration patience) {
        return begin(JobScope.of(open), open.revision(), request, patience);
    }

    private ImportProgress begin(JobScope scope, long revision, ImportRequest request, Duration patience) {
        uploads.need(request.upload(), scope.account());
        String question = json.writeValueAsString(request);
        boolean writes = request.step() == ImportRequest.Step.IMPORT;
        Job job = writes
                ? jobs.submitAnew(ImportJob.KIND, scope, revision, question)
                : jobs.submit(ImportJob.KIND, scope, revision, question);
        return look(scope, job.id().toString(), patience);
    }

    /** The import once it is over, or how far it is when {@code patience} is at an end. */
    public ImportProgress look(JobScope scope, String id, Duration patience) {
        Job job = jobs.await(scope, id, patience);
        boolean ended = job.status() == Job.Status.DONE || job.status() == Job.Status.FAILED;
        return new ImportProgress(
                job.id(),
                job.status(),
                job.progress(),
                ended ? json.readValue(jobs.answer(job), ImportAnswer.class) : null);
    }

    public void stop(JobScope scope, String id) {
        jobs.stop(scope, id);
    }
}
