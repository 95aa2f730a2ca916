package org.polyclave.server.store;

import org.polyclave.server.store.persistence.StudyMapper;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Reads the large studies that were worked on last when the server starts, before somebody waits for one. */
@Component
class RecentStudies {
    private static final int SOME = 3;

    private final StudyMapper studies;
    private final StudyStore store;

    RecentStudies(StudyMapper studies, StudyStore store) {
        this.studies = studies;
        this.store = store;
    }

    @EventListener(ApplicationReadyEvent.class)
    void read() {
        Thread reader = new Thread(() -> studies.largeStudies(SOME).forEach(store::load), "recent-studies");
        reader.setDaemon(true);
        reader.start();
    }
}
