package org.polyclave.server.demo;

import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.polyclave.demo.DemoStudies;
import org.polyclave.server.access.MemberService;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.access.StudyAccess;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.account.DemoAccounts;
import org.polyclave.server.edition.EditionService;
import org.polyclave.server.edition.EditionShelf;
import org.polyclave.server.key.KeyService;
import org.polyclave.server.key.NamedKeyService;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.model.Study;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
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
    private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);
    /** A busy machine takes its time to make the key; nobody else waits for it here. */
    private static final Duration PATIENCE = Duration.ofMinutes(30);

    private static final String TUSSOCKS = DemoStudies.tussocks().slug();
    /** By study, what readers are told of a danger that cannot be ruled out everywhere. */
    private static final Map<String, String> WORDS = Map.of(
            TUSSOCKS,
            " can look like the plants named here. Treat every tussock that you cannot name as false tussock: gloves on,"
                    + " nothing near the mouth.",
            DemoStudies.browncaps().slug(),
            " can look like the mushrooms named here. Treat every brown cap that you cannot name as deadly. No key is"
                    + " enough to eat any of them.",
            DemoStudies.crabs().slug(),
            " can look like the crabs named here. Watch from a distance, and do not pick up a crab that you cannot"
                    + " name.");

    private final DemoAccounts people;
    private final AccountService accounts;
    private final StudyStore store;
    private final StudyAccess access;
    private final MemberService members;
    private final EditionService editions;
    private final EditionShelf shelf;
    private final KeyService keys;
    private final NamedKeyService namedKeys;
    private final TransactionTemplate transactions;

    DemoLoader(
            DemoAccounts people,
            AccountService accounts,
            StudyStore store,
            StudyAccess access,
            MemberService members,
            EditionService editions,
            EditionShelf shelf,
            KeyService keys,
            NamedKeyService namedKeys,
            TransactionTemplate transactions) {
        this.people = people;
        this.accounts = accounts;
        this.store = store;
        this.access = access;
        this.members = members;
        this.editions = editions;
        this.shelf = shelf;
        this.keys = keys;
        this.namedKeys = namedKeys;
        this.transactions = transactions;
    }

    /**
     * The studies are written whole or not at all; their editions, which take jobs, come after or at the next start.
     * The lines of the log are what the launcher shows to whoever waits.
     */
    @EventListener(ApplicationReadyEvent.class)
    void load() {
        if (accounts.all().isEmpty()) {
            transactions.executeWithoutResult(t -> write());
        }
        accounts.find(AUTHOR)
                .ifPresent(author -> WORDS.keySet().stream()
                        .sorted(Comparator.comparing((String slug) -> !slug.equals(TUSSOCKS)))
                        .filter(slug -> shelf.list(slug).isEmpty())
                        .forEach(slug -> publish(access.asOwner(slug, author.id()), author)));
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
        List<Study> all = DemoStudies.withSpecimens();
        for (Study study : all) {
            LOG.info("Loading demo study {} of {}: {}", all.indexOf(study) + 1, all.size(), study.title());
            OpenStudy open = access.asOwner(store.create(study, author.id()), author.id());
            members.share(open, "oswin", Role.SCORER);
            members.share(open, "petra", Role.VIEWER);
            members.share(open, "lark", Role.VIEWER);
        }
    }

    /** Keeps a key under a name, unless an earlier start did so. */
    private void keep(
            OpenStudy open, String name, SortedSet<Integer> months, SortedSet<String> organs, boolean published) {
        if (namedKeys.all(open).stream().anyMatch(k -> k.name().equals(name))) {
            return;
        }
        KeyService.KeyRequest any = KeyService.KeyRequest.CAUTIOUS;
        KeyService.KeyRequest request = new KeyService.KeyRequest(
                any.objective(),
                true,
                months,
                organs,
                any.methods(),
                any.preserved(),
                any.taxa(),
                any.forbidden(),
                false,
                List.of(),
                any.stages(),
                any.groups(),
                any.leads(),
                null,
                any.magnification());
        NamedKeyService.NamedKeyLine kept =
                namedKeys.keep(open, name, keys.begin(open, request, PATIENCE).id());
        namedKeys.update(open, kept.id(), name, published);
    }

    private void keepKeys(OpenStudy open) {
        LOG.info("Generating the demo keys");
        keep(open, "Winter key", new TreeSet<>(Set.of(1, 2, 12)), new TreeSet<>(), true);
        keep(open, "Leaves in summer", new TreeSet<>(Set.of(6, 7, 8)), new TreeSet<>(Set.of("leaf", "sheath")), false);
    }

    private void publish(OpenStudy open, Account author) {
        if (open.slug().equals(TUSSOCKS)) {
            keepKeys(open);
        }
        LOG.info("Publishing the demo edition of {}", open.slug());
        Map<String, String> words = editions.gate(open).findings().stream()
                .filter(EditionService.GateFinding::blocking)
                .collect(Collectors.toMap(
                        EditionService.GateFinding::danger,
                        f -> f.dangerName() + WORDS.get(open.slug()),
                        (first, second) -> first));
        editions.publish(open, List.of(author.displayName(), "Oswin Brandreth"), words, PATIENCE);
    }
}
