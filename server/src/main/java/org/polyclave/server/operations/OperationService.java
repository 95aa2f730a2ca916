package org.polyclave.server.operations;

import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.ChangePreview;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.study.change.ReplaceScores;
import org.polyclave.study.change.StudyOperation;
import org.springframework.stereotype.Service;

/** Changes of many objects at once: first what they would do, then the same as one undoable change. */
@Service
public class OperationService {
    private final StudyWriter writer;

    OperationService(StudyWriter writer) {
        this.writer = writer;
    }

    /** Whether an operation leaves everything but scores alone. */
    public static boolean changesScoresOnly(StudyOperation operation) {
        return operation instanceof ReplaceScores;
    }

    public ChangePreview preview(OpenStudy open, StudyOperation operation) {
        return ChangePreview.of(writer.plan(open, operation::apply));
    }

    public StudyWriter.Written run(OpenStudy open, StudyOperation operation, long baseRevision) {
        return writer.replace(open, baseRevision, operation::apply);
    }
}
