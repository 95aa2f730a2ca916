package org.polyclave.server.study;

import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.account.Account;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyStore;
import org.polyclave.server.study.persistence.GaugeMapper;
import org.polyclave.study.advice.NextBestStep;
import org.polyclave.study.advice.NextStep;
import org.polyclave.study.advice.StudyProgress;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyScope;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Studies as their members see them. */
@Service
public class StudyService {
    private final GaugeMapper gauges;
    private final ChangeLog log;
    private final StudyStore store;
    private final EditionCounter editions;
    private final JsonMapper json;
    private final Clock clock;

    StudyService(
            GaugeMapper gauges,
            ChangeLog log,
            StudyStore store,
            EditionCounter editions,
            JsonMapper json,
            Clock clock) {
        this.gauges = gauges;
        this.log = log;
        this.store = store;
        this.editions = editions;
        this.json = json;
        this.clock = clock;
    }

    /** How many editions a study has; told by the feature that keeps them. */
    public interface EditionCounter {
        int count(long study);
    }

    /** A line of the list of studies. */
    /** @param blind whether the account scores it blind, so that it is not told how far others are */
    public record StudyLine(String slug, String title, Role role, boolean blind, StudyProgress progress) {}

    /** @param total how many there are in all */
    public record StudyPage(List<StudyLine> studies, int total) {}

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

    /** Some of the studies that an account shares, by title, in one query. */
    public StudyPage list(Account who, int from, int count) {
        List<StudyLine> lines =
                gauges.studies(who.id(), from, count).stream().map(this::line).toList();
        return new StudyPage(lines, gauges.count(who.id()));
    }

    private StudyLine line(GaugeMapper.StudyLine study) {
        StudyProgress progress = progress(study).withEditions(study.editions());
        return new StudyLine(
                study.slug(),
                study.title(),
                Role.valueOf(study.role()),
                study.blind(),
                study.blind() ? progress.withoutScores() : progress);
    }

    /** Progress as it was worked out last if nothing changed since: a list must not read whole studies. */
    private StudyProgress progress(GaugeMapper.StudyLine study) {
        if (!study.gauges().isEmpty()) {
            return json.readValue(study.gauges(), StudyProgress.class);
        }
        StudyStore.Snapshot snapshot = store.load(study.id());
        StudyProgress progress = StudyProgress.of(snapshot.compiled(), 0);
        gauges.putGauges(study.id(), snapshot.revision(), json.writeValueAsString(progress));
        return progress;
    }

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
        StudyStore.Snapshot snapshot = store.load(open.id());
        StudyProgress progress = StudyProgress.of(snapshot.compiled(), editions.count(open.id()));
        return new NextBestStep(
                        snapshot.compiled(), progress, LocalDate.now(clock).getMonthValue())
                .find();
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

    /** A new study of the account's own, with nothing in it yet. */
    public String begin(String title, Account who) {
        String slug = Slug.of(title).isEmpty() ? "study" : Slug.of(title);
        Study empty = new Study(slug, title.strip(), StudyScope.EMPTY, List.of(), List.of(), List.of(), List.of());
        return store.create(empty, who.id());
    }
}
