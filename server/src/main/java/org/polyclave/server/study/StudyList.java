package org.polyclave.server.study;

import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.Role;
import org.polyclave.server.account.Account;
import org.polyclave.server.store.StudyStore;
import org.polyclave.server.study.persistence.StudyListMapper;
import org.polyclave.study.advice.NextBestStep;
import org.polyclave.study.advice.NextStep;
import org.polyclave.study.advice.StudyProgress;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** The studies of an account beside one another: how far each is, who worked at it last, and what would help it most. */
@Service
public class StudyList {
    private final StudyListMapper studies;
    private final StudyStore store;
    private final JsonMapper json;
    private final Clock clock;

    StudyList(StudyListMapper studies, StudyStore store, JsonMapper json, Clock clock) {
        this.studies = studies;
        this.store = store;
        this.json = json;
        this.clock = clock;
    }

    /** Which of them. */
    public enum Which {
        CURRENT,
        ARCHIVED,
        /** Those that are kept for a month, for whoever owns them. */
        DELETED
    }

    public enum Order {
        TITLE,
        /** What was changed last comes first. */
        CHANGED
    }

    /**
     * A line of the list of studies.
     *
     * @param blind whether the account scores it blind, so that it is not told how far others are
     * @param changed day of the latest change, ISO 8601
     * @param who made it; empty if nothing changed since the study was made
     * @param next what would help it most, if somebody looked at it since it changed; null for whoever scores it blind
     */
    public record StudyLine(
            String slug,
            String title,
            Role role,
            boolean blind,
            StudyProgress progress,
            String changed,
            String who,
            @Nullable NextStep next) {}

    /** @param total how many there are in all */
    public record StudyPage(List<StudyLine> studies, int total) {}

    /**
     * What is kept of a study at a revision.
     *
     * @param next null until somebody asks for it: to find it can take seconds
     * @param month for which it was found
     */
    private record Gauges(StudyProgress progress, @Nullable NextStep next, int month) {}

    /**
     * Some of the studies that an account shares, in one query.
     *
     * @param find what stands in their titles; empty: anything
     */
    public StudyPage list(Account who, String find, Which which, Order order, int from, int count) {
        List<StudyLine> lines =
                studies.studies(who.id(), find.strip(), which.name(), order == Order.CHANGED, from, count).stream()
                        .map(this::line)
                        .toList();
        return new StudyPage(lines, studies.count(who.id(), find.strip(), which.name()));
    }

    private StudyLine line(StudyListMapper.StudyLine study) {
        Gauges gauges = gauges(study);
        StudyProgress progress = gauges.progress().withEditions(study.editions());
        return new StudyLine(
                study.slug(),
                study.title(),
                Role.valueOf(study.role()),
                study.blind(),
                study.blind() ? progress.withoutScores() : progress,
                study.changed(),
                study.who(),
                study.blind() ? null : gauges.next());
    }

    /** As they were worked out last if nothing changed since: a list must not read whole studies. */
    private Gauges gauges(StudyListMapper.StudyLine study) {
        if (!study.gauges().isEmpty()) {
            Gauges kept = json.readValue(study.gauges(), Gauges.class);
            boolean holds = kept.month() == month() && kept.progress().editions() == study.editions();
            return holds ? kept : new Gauges(kept.progress(), null, 0);
        }
        StudyStore.Snapshot snapshot = store.load(study.id());
        Gauges now = new Gauges(StudyProgress.of(snapshot.compiled(), study.editions()), null, 0);
        keep(study.id(), snapshot.revision(), now);
        return now;
    }

    /** What would help a study most now; whoever lists it next is told, too. */
    NextStep nextStep(long study, int editions) {
        StudyStore.Snapshot snapshot = store.load(study);
        StudyProgress progress = StudyProgress.of(snapshot.compiled(), editions);
        NextStep next = new NextBestStep(snapshot.compiled(), progress, month()).find();
        keep(study, snapshot.revision(), new Gauges(progress, next, month()));
        return next;
    }

    private void keep(long study, long revision, Gauges gauges) {
        studies.putGauges(study, revision, json.writeValueAsString(gauges));
    }

    private int month() {
        return LocalDate.now(clock).getMonthValue();
    }
}
