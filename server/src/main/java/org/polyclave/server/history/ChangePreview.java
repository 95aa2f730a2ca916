package org.polyclave.server.history;

import java.util.List;
import org.polyclave.study.change.StudyDifference.Change;

/**
 * What a change of a study would do.
 *
 * @param revision of the study it was worked out from; sent back with the change
 * @param total how many objects would change; not all of them may be listed
 */
public record ChangePreview(long revision, int total, List<Change> changes) {
    private static final int MOST_SHOWN = 500;

    /** The first of many changes. */
    public static ChangePreview of(StudyWriter.Planned planned) {
        List<Change> all = planned.changes();
        return new ChangePreview(planned.revision(), all.size(), all.subList(0, Math.min(MOST_SHOWN, all.size())));
    }
}
