package org.polyclave.server.job;

import java.util.UUID;

/**
 * A long computation about a study at a revision.
 *
 * @param question what is asked, as the kind of job writes it
 * @param progress part that is done, from 0 to 1
 */
public record Job(UUID id, long study, long revision, String question, Status status, double progress) {
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
