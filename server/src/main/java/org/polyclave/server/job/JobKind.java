package org.polyclave.server.job;

import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;

/** A kind of long computation. Each is a bean; the runner finds it by its name. */
public interface JobKind {
    String name();

    /**
     * Computes the answer, as JSON. May run again after a crash, so what it changes besides is written in one transaction with
     * {@link JobAnswers#finish}. What it throws as a problem
     * is told to whoever asked.
     *
     * @param cancel asked often; a job that stops by it may return or throw what it likes
     */
    String answer(Job job, CancelSignal cancel, Progress progress);
}
