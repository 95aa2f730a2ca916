package org.polyclave.server.study;

import java.util.List;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.advice.NextStep;
import org.polyclave.study.advice.StudyProgress;
import org.springframework.stereotype.Service;

/** A study as its members see it. */
@Service
public class StudyService {
    private final ChangeLog log;
    private final StudyStore store;
    private final EditionCounter editions;
    private final StudyList list;

    StudyService(ChangeLog log, StudyStore store, EditionCounter editions, StudyList list) {
        this.log = log;
        this.store = store;
        this.editions = editions;
        this.list = list;
    }

    /** How many editions a study has; told by the feature that keeps them. */
    public interface EditionCounter {
        int count(long study);
    }

    /**
     * What changed since a revision.
     *
     * @param structure whether more than cells changed, so that the study has to be read again
     * @param characters ids of the characters of which cells changed
     */
    public record Changes(
            long revision,
            boolean structure,
            List<String> characters,
            StudyProgress progress,
            StudyView.Counts counts) {}

    public StudyView view(OpenStudy open) {
        return new StudyViewer(store.load(open.id())).view(open, editions.count(open.id()));
    }

    /** What the rows show for some characters; those that do not exist are left out. */
    public List<StudyView.ColumnView> columns(OpenStudy open, List<String> characters) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        StudyViewer viewer = new StudyViewer(snapshot);
        return characters.stream()
                .distinct()
                .flatMap(id -> snapshot.study().character(id).stream())
                .map(c -> open.blind() ? viewer.hidden(c) : viewer.column(c))
                .toList();
    }

    /** What would help the study most now. */
    public NextStep nextStep(OpenStudy open) {
        return list.nextStep(open.id(), editions.count(open.id()));
    }

    /** What changed after {@code revision}. */
    public Changes changesSince(OpenStudy open, long revision) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        List<StudyObject> changed = snapshot.revision() == revision ? List.of() : log.changedSince(open.id(), revision);
        boolean structure = changed.stream().anyMatch(o -> !o.isData());
        List<String> characters = changed.stream()
                .filter(o -> o.kind() == StudyObject.Kind.CELL)
                .map(StudyObject::character)
                .distinct()
                .toList();
        StudyViewer viewer = new StudyViewer(snapshot);
        return new Changes(
                snapshot.revision(),
                structure,
                open.blind() ? List.of() : characters,
                viewer.progress(open, editions.count(open.id())),
                viewer.counts(open));
    }
}
