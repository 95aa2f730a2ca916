package org.polyclave.server.job;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.polyclave.server.job.persistence.JobMapper;
import org.polyclave.server.platform.Problems;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Service;
import org.springframework.web.ErrorResponseException;
import tools.jackson.databind.json.JsonMapper;

/** Long computations: asked for, waited for, stopped. */
@Service
public class JobService {
    private static final Duration BETWEEN_LOOKS = Duration.ofMillis(25);

    private final JobMapper jobs;
    private final Scheduler scheduler;
    private final OneTimeTask<Void> task;
    private final JsonMapper json;

    JobService(JobMapper jobs, Scheduler scheduler, OneTimeTask<Void> task, JsonMapper json) {
        this.jobs = jobs;
        this.scheduler = scheduler;
        this.task = task;
        this.json = json;
    }

    /** Asks for a computation. The same question about the same revision finds the job that was already made for it. */
    public Job submit(String kind, JobScope scope, long revision, String question) {
        return submit(kind, scope, revision, question, true);
    }

    /** Asks for a computation that changes something: what was done before is not taken for it, only what is under way. */
    public Job submitAnew(String kind, JobScope scope, long revision, String question) {
        return submit(kind, scope, revision, question, false);
    }

    private Job submit(String kind, JobScope scope, long revision, String question, boolean answered) {
        JobMapper.JobRow alike = jobs.alike(kind, scope.study(), revision, question, scope.account(), answered)
                .orElse(null);
        String id = alike == null ? UUID.randomUUID().toString() : alike.id();
        if (alike == null) {
            jobs.insert(id, kind, scope.study(), revision, question, scope.account());
        }
        if (alike == null || alike.status().equals(Job.Status.QUEUED.name())) {
            // Also for one that waits already: the server may have been killed between the two steps.
            scheduler.scheduleIfNotExists(task.instance(id), Instant.now());
        }
        return find(scope, id);
    }

    /** The job once it is over, or as it stands when {@code longest} has passed. */
    public Job await(JobScope scope, String id, Duration longest) {
        long end = System.nanoTime() + longest.toNanos();
        Job job = find(scope, id);
        while (!job.status().isOver() && System.nanoTime() < end) {
            try {
                Thread.sleep(BETWEEN_LOOKS.toMillis());
            } catch (InterruptedException interrupted) {
                Thread.currentThread().interrupt();
                return job;
            }
            job = find(scope, id);
        }
        return job;
    }

    /**
     * The answer of a job that is done, as JSON.
     *
     * @throws ErrorResponseException what the job met instead, if it failed
     */
    public String answer(Job job) {
        if (job.status() == Job.Status.FAILED) {
            JobRunner.Refusal refusal = json.readValue(jobs.problem(job.id().toString()), JobRunner.Refusal.class);
            HttpStatusCode status = HttpStatusCode.valueOf(refusal.status());
            ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, refusal.sentence());
            refusal.properties().forEach(problem::setProperty);
            throw new ErrorResponseException(status, problem, null);
        }
        if (job.status() != Job.Status.DONE) {
            throw Problems.notFound();
        }
        return jobs.answer(job.id().toString());
    }

    /** The best that there is of a job that is under way or was stopped, for kinds of jobs that keep it. */
    public Optional<String> answerSoFar(Job job) {
        return Optional.of(jobs.answer(job.id().toString())).filter(text -> !text.isEmpty());
    }

    /** Asks a job to stop; one that is over stays as it is. */
    public void stop(JobScope scope, String id) {
        find(scope, id);
        jobs.stop(id);
    }

    /** A job of this scope; others do not exist. */
    public Job find(JobScope scope, String id) {
        try {
            return jobs.find(UUID.fromString(id).toString())
                    .map(JobRunner::of)
                    .filter(scope::includes)
                    .orElseThrow(Problems::notFound);
        } catch (IllegalArgumentException noId) {
            throw Problems.notFound();
        }
    }
}
