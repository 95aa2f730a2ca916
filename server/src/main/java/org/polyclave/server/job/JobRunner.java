package org.polyclave.server.job;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;
import org.polyclave.server.job.persistence.JobMapper;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.ErrorResponseException;
import tools.jackson.databind.json.JsonMapper;

/** Runs one job: reports its progress, hears that it shall stop, and keeps its answer or why there is none. */
@Component
class JobRunner {
    private static final Logger LOG = LoggerFactory.getLogger(JobRunner.class);
    private static final Duration LONGEST = Duration.ofMinutes(30);
    private static final Duration BETWEEN_REPORTS = Duration.ofMillis(200);
    private static final Duration BETWEEN_BESTS = Duration.ofSeconds(2);
    private static final int TIMES_AS_LONG = 10;

    private final JobMapper jobs;
    private final Map<String, JobKind> kinds;
    private final JsonMapper json;
    /** What is said from within a job is said at once, also while the job writes: its own transaction may take a while. */
    private final TransactionTemplate apart;

    JobRunner(JobMapper jobs, List<JobKind> kinds, JsonMapper json, PlatformTransactionManager transactions) {
        this.jobs = jobs;
        apart = new TransactionTemplate(transactions);
        apart.setPropagationBehavior(TransactionDefinition.PROPAGATION_REQUIRES_NEW);
        this.kinds = kinds.stream().collect(Collectors.toMap(JobKind::name, Function.identity()));
        this.json = json;
    }

    /** Why a job has no answer, as it is kept. */
    record Refusal(int status, String sentence, Map<String, Object> properties) {}

    /**
     * @param closing whether this server is about to end; then the job is left to be run again
     * @throws IllegalStateException if it was left
     */
    void run(String id, BooleanSupplier closing) {
        JobMapper.JobRow row = jobs.find(id).orElse(null);
        if (row == null || jobs.begin(id) == 0) {
            return;
        }
        Watch watch = new Watch(id, closing);
        @Nullable String answer = null;
        @Nullable String best = null;
        boolean cancelled = false;
        @Nullable Refusal refusal = null;
        try {
            JobKind kind = kinds.get(row.kind());
            if (kind == null) {
                throw new IllegalStateException("No kind of job is called " + row.kind());
            }
            answer = kind.answer(of(row), watch, watch, watch);
            best = kind.keepsBestSoFar() ? answer : null;
        } catch (ErrorResponseException refused) {
            refusal = refusal(refused);
        } catch (CancellationException asked) {
            cancelled = true;
        } catch (RuntimeException failed) {
            LOG.error("Job {} of kind {} failed", id, row.kind(), failed);
            refusal = failure();
        }
        if (closing.getAsBoolean() && watch.stopped) {
            throw new IllegalStateException("Left for the next server");
        } else if (watch.late) {
            Refusal late = new Refusal(
                    HttpStatus.UNPROCESSABLE_CONTENT.value(),
                    "This was not done after " + LONGEST.toMinutes()
                            + " minutes and was stopped. Leave out characters or taxa.",
                    Map.of("code", "too-slow"));
            jobs.end(id, Job.Status.FAILED.name(), "", json.writeValueAsString(late));
        } else if (watch.stopped || cancelled) {
            jobs.end(id, Job.Status.CANCELLED.name(), best == null ? "" : best, "");
        } else if (refusal != null) {
            jobs.end(id, Job.Status.FAILED.name(), "", json.writeValueAsString(refusal));
        } else {
            keep(id, answer == null ? "" : answer);
        }
    }

    private void keep(String id, String answer) {
        try {
            jobs.end(id, Job.Status.DONE.name(), answer, "");
        } catch (RuntimeException unkeepable) {
            // It would be run again and again, and fail each time.
            LOG.error("The answer of job {} could not be kept", id, unkeepable);
            jobs.end(id, Job.Status.FAILED.name(), "", json.writeValueAsString(failure()));
        }
    }

    private static Refusal failure() {
        return new Refusal(
                HttpStatus.INTERNAL_SERVER_ERROR.value(),
                "Polyclave failed at this. Nothing was changed. Try again; if it fails again, tell whoever runs this installation.",
                Map.of("code", "failed"));
    }

    static Job of(JobMapper.JobRow row) {
        return new Job(
                UUID.fromString(row.id()),
                row.studyId(),
                row.accountId(),
                row.revision(),
                row.question(),
                Job.Status.valueOf(row.status()),
                row.progress());
    }

    private static Refusal refusal(ErrorResponseException refused) {
        Map<String, Object> properties = refused.getBody().getProperties();
        String sentence = refused.getBody().getDetail();
        return new Refusal(
                refused.getStatusCode().value(),
                sentence == null ? "" : sentence,
                properties == null ? Map.of() : properties);
    }

    /** Speaks with the database now and then, from within the computation. */
    private final class Watch implements CancelSignal, Progress, JobKind.BestSoFar {
        private final String id;
        private final BooleanSupplier closing;
        private final long started = System.nanoTime();
        private long spoken = started;
        private long next = started;
        private double share;
        private boolean stopped;
        private boolean late;

        Watch(String id, BooleanSupplier closing) {
            this.id = id;
            this.closing = closing;
        }

        @Override
        public boolean isCancelled() {
            speak();
            return stopped;
        }

        @Override
        public void report(double done) {
            share = done;
            speak();
        }

        @Override
        public void keep(Supplier<String> answer) {
            long now = System.nanoTime();
            if (!stopped && now >= next) {
                String best = answer.get();
                apart.executeWithoutResult(t -> jobs.keepSoFar(id, best));
                long took = System.nanoTime() - now;
                // What takes long to write is not written over and over.
                next = now + took + Math.max(BETWEEN_BESTS.toNanos(), TIMES_AS_LONG * took);
            }
        }

        private boolean isToStop() {
            return Boolean.TRUE.equals(apart.execute(t -> jobs.report(id, share).orElse(true)));
        }

        private void speak() {
            long now = System.nanoTime();
            if (stopped || now - spoken < BETWEEN_REPORTS.toNanos()) {
                return;
            }
            spoken = now;
            late = now - started > LONGEST.toNanos();
            stopped = late || closing.getAsBoolean() || isToStop();
        }
    }
}
