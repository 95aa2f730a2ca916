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
import org.springframework.transaction.support.TransactionTemplate;

/** Fills an empty installation with the invented people and studies; what is there already is left alone. */
@Component
@ConditionalOnBooleanProperty("polyclave.demo")
class DemoLoader {
    private static final String AUTHOR = "isolde";
    private static final String SLUG = DemoStudies.tussocks().slug();

    private final DemoAccounts people;
    private final AccountService accounts;
    private final StudyStore store;
    private final StudyService studies;
    private final EditionService editions;
    private final TransactionTemplate transactions;

    DemoLoader(
            DemoAccounts people,
            AccountService accounts,
            StudyStore store,
            StudyService studies,
            EditionService editions,
            TransactionTemplate transactions) {
        this.people = people;
        this.accounts = accounts;
        this.store = store;
        this.studies = studies;
        this.editions = editions;
        this.transactions = transactions;
    }

    /** The studies are written whole or not at all; the edition of one, which takes a job, comes after or at the next start. */
    @EventListener(ApplicationReadyEvent.class)
    void load() {
        if (accounts.all().isEmpty()) {
            transactions.executeWithoutResult(t -> write());
        }
        accounts.find(AUTHOR).filter(author -> editions.list(SLUG).isEmpty()).ifPresent(this::publish);
    }

    private void write() {
        for (DemoAccounts.DemoAccount person : people.offered()) {
            accounts.create(
                    person.name(),
                    person.displayName(),
                    person.password(),
                    person.role().equals("administrator"));
        }
        Account author = accounts.find(AUTHOR).orElseThrow();
        for (Study study : DemoStudies.withSpecimens()) {
            StudyAccess.Open open = studies.asOwner(store.create(study, author.id()), author.id());
            studies.share(open, "oswin", Role.SCORER);
            studies.share(open, "petra", Role.VIEWER);
            studies.share(open, "lark", Role.VIEWER);
        }
    }

    private void publish(Account author) {
        StudyAccess.Open open = studies.asOwner(SLUG, author.id());
        Map<String, String> words = editions.gate(open).findings().stream()
                .collect(Collectors.toMap(
                        EditionService.GateFinding::danger,
                        f -> "Out of flower, " + f.dangerName()
                                + " can look like the plants named here. Treat every tussock that you"
                                + " cannot name as false tussock: gloves on, nothing near the mouth."));
        editions.publish(open, List.of(author.displayName(), "Oswin Brandreth"), words);
    }
}
