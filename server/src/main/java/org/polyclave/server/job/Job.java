package org.polyclave.server.job;

import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A long computation, most often about a study at a revision.
 *
 * @param ofStudy null for what is of an account alone
 * @param account who asked first
 * @param question what is asked, as the kind of job writes it
 * @param progress part that is done, from 0 to 1
 */
public record Job(
        UUID id, @Nullable Long ofStudy, long account, long revision, String question, Status status, double progress) {
    /** The study, of which this kind of job always is. */
    public long study() {
        return Objects.requireNonNull(ofStudy, "This job is of no study");
    }

    /** Where a job stands. */
    public enum Status {
        QUEUED,
        RUNNING,
        DONE,
        FAILED,
        CANCELLED;

        public boolean isOver() {
            return this != QUEUED && this != RUNNING;
        }
    }
}
