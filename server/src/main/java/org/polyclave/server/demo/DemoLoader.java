package org.polyclave.server.demo;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.polyclave.demo.DemoStudies;
import org.polyclave.formats.study.Study;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.account.DemoAccounts;
import org.polyclave.server.edition.EditionService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyStore;
import org.springframework.boot.autoconfigure.condition.ConditionalOnBooleanProperty;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Fills an empty installation with the invented people and studies; what is there already is left alone. */
@Component
@ConditionalOnBooleanProperty("polyclave.demo")
class DemoLoader {
    private final DemoAccounts people;
    private final AccountService accounts;
    private final StudyStore store;
    private final StudyService studies;
    private final EditionService editions;

    DemoLoader(
            DemoAccounts people,
            AccountService accounts,
            StudyStore store,
            StudyService studies,
            EditionService editions) {
        this.people = people;
        this.accounts = accounts;
        this.store = store;
        this.studies = studies;
        this.editions = editions;
    }

    @EventListener(ApplicationReadyEvent.class)
    @Transactional
    void load() {
        if (!accounts.all().isEmpty()) {
            return;
        }
        for (DemoAccounts.DemoAccount person : people.offered()) {
            accounts.create(
                    person.name(),
                    person.displayName(),
                    person.password(),
                    person.role().equals("administrator"));
        }
        Account author = accounts.find("isolde").orElseThrow();
        Study tussocks = DemoStudies.tussocks();
        String slug = store.create(tussocks, author.id());
        StudyAccess.Open open = studies.asOwner(slug, author.id());
        studies.share(open, "oswin", Role.SCORER);
        studies.share(open, "petra", Role.VIEWER);
        studies.share(open, "lark", Role.VIEWER);
        Map<String, String> words = editions.gate(open).findings().stream()
                .collect(Collectors.toMap(
                        EditionService.GateFinding::danger,
                        f -> "Out of flower, " + f.dangerName()
                                + " can look like the plants named here. Treat every tussock that you"
                                + " cannot name as false tussock: gloves on, nothing near the mouth."));
        editions.publish(open, List.of(author.displayName(), "Oswin Brandreth"), words);
    }
}
