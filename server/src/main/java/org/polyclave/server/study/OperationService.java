package org.polyclave.server.study;

import java.util.List;
import org.polyclave.study.change.ReplaceScores;
import org.polyclave.study.change.StudyDifference.Change;
import org.polyclave.study.change.StudyOperation;
import org.springframework.stereotype.Service;

/** Changes of many objects at once: first what they would do, then the same as one undoable change. */
@Service
public class OperationService {
    private static final int MOST_SHOWN = 500;

    private final StudyWriter writer;

    OperationService(StudyWriter writer) {
        this.writer = writer;
    }

    /**
     * What an operation would do.
     *
     * @param revision of the study it was worked out from; sent back with the operation
     * @param total how many objects would change; not all of them may be listed
     */
    public record ChangePreview(long revision, int total, List<Change> changes) {
        /** The first of many changes. */
        public static ChangePreview of(StudyWriter.Planned planned) {
            List<Change> all = planned.changes();
            return new ChangePreview(planned.revision(), all.size(), all.subList(0, Math.min(MOST_SHOWN, all.size())));
        }
    }

    /** Whether an operation leaves everything but scores alone. */
    public static boolean changesScoresOnly(StudyOperation operation) {
        return operation instanceof ReplaceScores;
    }

    public ChangePreview preview(StudyAccess.Open open, StudyOperation operation) {
        return ChangePreview.of(writer.plan(open, operation::apply));
    }

    public StudyWriter.Written run(StudyAccess.Open open, StudyOperation operation, long seen) {
        return writer.replace(open, seen, operation::apply);
    }
}
