package org.polyclave.server.job;

import java.util.function.Supplier;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;

/** A kind of long computation. Each is a bean; the runner finds it by its name. */
public interface JobKind {
    String name();

    /** Whether what it returns when it is stopped is an answer, too: the best so far. */
    default boolean keepsBestSoFar() {
        return false;
    }

    /**
     * Computes the answer, as JSON. May run again after a crash, so what it changes besides is written in one transaction with
     * {@link JobAnswers#finish}. What it throws as a problem
     * is told to whoever asked.
     *
     * @param soFar told of what could be the answer if the job ended now, for those who wait
     * @param cancel asked often; a job that stops by it may return or throw what it likes
     */
    String answer(Job job, CancelSignal cancel, Progress progress, BestSoFar soFar);

    /** Takes what could be the answer if the job ended now. */
    interface BestSoFar {
        /** Keeps it, unless the last one was kept a moment ago. */
        void keep(Supplier<String> answer);
    }
}
