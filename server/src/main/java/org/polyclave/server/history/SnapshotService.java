package org.polyclave.server.history;

import java.util.List;
import java.util.Map;
import org.polyclave.files.study.StudyJson;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.persistence.SnapshotMapper;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.change.StudyDifference;
import org.polyclave.study.model.Study;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Named states of a study: taken, compared with one another or with now, brought back as one undoable change. */
@Service
public class SnapshotService {
    /** In place of a snapshot's number, the study as it is now. */
    public static final long NOW = 0;

    private final SnapshotMapper snapshots;
    private final StudyStore store;
    private final StudyWriter writer;

    SnapshotService(SnapshotMapper snapshots, StudyStore store, StudyWriter writer) {
        this.snapshots = snapshots;
        this.store = store;
        this.writer = writer;
    }

    public List<SnapshotMapper.SnapshotLine> all(OpenStudy open) {
        return snapshots.all(open.id());
    }

    @Transactional
    public List<SnapshotMapper.SnapshotLine> take(OpenStudy open, String name) {
        String wanted = name.strip();
        if (wanted.isEmpty() || snapshots.isTaken(open.id(), wanted)) {
            throw Problems.unprocessable(
                    ProblemCode.NAME,
                    wanted.isEmpty()
                            ? "A snapshot needs a name, to be found again by."
                            : "A snapshot '" + wanted + "' exists already. Choose another name.",
                    Map.of());
        }
        StudyStore.Snapshot now = store.load(open.id());
        snapshots.insert(open.id(), wanted, now.revision(), open.account(), StudyJson.write(now.study()));
        return snapshots.all(open.id());
    }

    public void remove(OpenStudy open, long id) {
        if (snapshots.delete(open.id(), id) == 0) {
            throw Problems.notFound();
        }
    }

    /** What differs from one state to another; {@link #NOW} is the study as it is. */
    public ChangePreview difference(OpenStudy open, long from, long to) {
        long revision = store.load(open.id()).revision();
        return ChangePreview.of(
                new StudyWriter.Planned(revision, StudyDifference.between(study(open, from), study(open, to))));
    }

    /** Makes the study what it was, but for its name in addresses. */
    public StudyWriter.Written restore(OpenStudy open, long id, long baseRevision) {
        Study then = study(open, id);
        return writer.replace(open, baseRevision, now -> then.named(now.slug(), then.title()));
    }

    private Study study(OpenStudy open, long id) {
        if (id == NOW) {
            return store.load(open.id()).study();
        }
        String document = snapshots.document(open.id(), id).orElseThrow(Problems::notFound);
        return StudyJson.readOwn(document);
    }
}
