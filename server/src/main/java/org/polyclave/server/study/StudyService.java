package org.polyclave.server.study;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.persistence.ChangeMapper;
import org.polyclave.server.study.persistence.StudyMapper;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyScope;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Studies and who shares them. */
@Service
public class StudyService {
    private final StudyMapper studies;
    private final ChangeMapper changes;
    private final ChangeLog log;
    private final StudyStore store;
    private final StudyAccess access;
    private final AccountService accounts;
    private final EditionCounter editions;
    private final JsonMapper json;
    private final Clock clock;

    StudyService(
            StudyMapper studies,
            ChangeMapper changes,
            ChangeLog log,
            StudyStore store,
            StudyAccess access,
            AccountService accounts,
            EditionCounter editions,
            JsonMapper json,
            Clock clock) {
        this.studies = studies;
        this.changes = changes;
        this.log = log;
        this.store = store;
        this.access = access;
        this.accounts = accounts;
        this.editions = editions;
        this.json = json;
        this.clock = clock;
    }

    /** How many editions a study has; told by the feature that keeps them. */
    public interface EditionCounter {
        int count(long study);
    }

    /** A line of the list of studies. */
    public record StudyLine(String slug, String title, Role role, StudyView.Gauges gauges) {}

    /** A cell's changes, newest first. */
    public record CellHistory(String who, String at, String kind) {}

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
            StudyView.Gauges gauges,
            StudyView.Counts counts) {}

    public List<StudyLine> list(SignedIn who) {
        List<StudyLine> lines = new ArrayList<>();
        for (StudyMapper.StudyHead head : studies.studiesOf(who.account().id())) {
            StudyView.Gauges gauges = gauges(head).withEditions(editions.count(head.id()));
            lines.add(new StudyLine(head.slug(), head.title(), Role.valueOf(head.role()), gauges));
        }
        return lines;
    }

    /** Gauges as they were worked out last if nothing changed since: a list must not read whole studies. */
    private StudyView.Gauges gauges(StudyMapper.StudyHead head) {
        return studies.gauges(head.id(), head.revision())
                .map(g -> json.readValue(g, StudyView.Gauges.class))
                .orElseGet(() -> {
                    StudyStore.Snapshot snapshot = store.load(head.id());
                    StudyView.Gauges gauges = new StudyViewer(snapshot).gauges(0);
                    studies.putGauges(head.id(), snapshot.revision(), json.writeValueAsString(gauges));
                    return gauges;
                });
    }

    public StudyView view(StudyAccess.Open open) {
        return new StudyViewer(store.load(open.id())).view(open, editions.count(open.id()));
    }

    /** What the rows show for some characters; those that do not exist are left out. */
    public List<StudyView.ColumnView> columns(StudyAccess.Open open, List<String> characters) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        StudyViewer viewer = new StudyViewer(snapshot);
        return characters.stream()
                .distinct()
                .flatMap(id -> snapshot.study().character(id).stream())
                .map(c -> open.blind() ? viewer.hidden(c) : viewer.column(c))
                .toList();
    }

    /** What would help the study most now. */
    public StudyView.NextStep nextStep(StudyAccess.Open open) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        StudyView.Gauges gauges = new StudyViewer(snapshot).gauges(editions.count(open.id()));
        return new NextBestStep(
                        snapshot.compiled(), gauges, LocalDate.now(clock).getMonthValue())
                .find();
    }

    /** What changed after {@code revision}. */
    public Changes changesSince(StudyAccess.Open open, long revision) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        List<StudyObject> changed = snapshot.revision() == revision
                ? List.of()
                : changes.changedSince(open.id(), revision).stream()
                        .map(StudyObject::of)
                        .toList();
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
                characters,
                viewer.gauges(editions.count(open.id())),
                viewer.counts(open));
    }

    /** Takes back the account's own latest change of this study, whatever it was of. */
    public long undo(StudyAccess.Open open) {
        return log.undo(open);
    }

    /** Does again what the account took back last. */
    public long redo(StudyAccess.Open open) {
        return log.redo(open);
    }

    public List<CellHistory> history(StudyAccess.Open open, String row, String character) {
        return changes.historyOf(open.id(), StudyObject.cell(row, character).key()).stream()
                .map(c -> new CellHistory(c.who(), c.at(), c.kind()))
                .toList();
    }

    public List<StudyMapper.Member> members(StudyAccess.Open open) {
        return studies.members(open.id());
    }

    /** The role of an account in the study; empty if it is not shared with it. */
    public Optional<Role> roleOf(StudyAccess.Open open, String name) {
        return members(open).stream()
                .filter(m -> m.name().equals(name))
                .map(m -> Role.valueOf(m.role()))
                .findFirst();
    }

    @Transactional
    public void share(StudyAccess.Open open, String name, Role role) {
        Account account = accounts.find(name)
                .orElseThrow(() -> Problems.badRequest(
                        "no-such-account",
                        "The account '" + name + "' does not exist. Ask your administrator to make one."));
        studies.putMember(open.id(), account.id(), role.name());
    }

    /** @throws org.springframework.web.ErrorResponseException if the study would be left without an owner */
    @Transactional
    public void unshare(StudyAccess.Open open, String name) {
        List<StudyMapper.Member> members = members(open);
        StudyMapper.Member gone =
                members.stream().filter(m -> m.name().equals(name)).findFirst().orElseThrow(Problems::notFound);
        String owner = Role.OWNER.name();
        boolean onlyOwner = gone.role().equals(owner)
                && members.stream().filter(m -> m.role().equals(owner)).count() == 1;
        if (onlyOwner) {
            throw Problems.unprocessable(
                    "only-owner",
                    "'" + gone.displayName() + "' is the study's only owner. Make another member an owner first.",
                    Map.of());
        }
        studies.removeMember(open.id(), name);
    }

    /** A new study of the account's own, with nothing in it yet. */
    public String begin(String title, SignedIn who) {
        String slug = Slug.of(title).isEmpty() ? "study" : Slug.of(title);
        Study empty = new Study(slug, title.strip(), StudyScope.EMPTY, List.of(), List.of(), List.of(), List.of());
        return store.create(empty, who.account().id());
    }

    public StudyAccess.Open open(String slug, @Nullable SignedIn who, Role needed) {
        return access.require(slug, who, needed);
    }

    /** For what shows no scores of others. */
    public StudyAccess.Open openEvenBlind(String slug, @Nullable SignedIn who, Role needed) {
        return access.requireEvenBlind(slug, who, needed);
    }

    /** For work that the installation itself does in somebody's name. */
    public StudyAccess.Open asOwner(String slug, long account) {
        StudyMapper.StudyHead head = studies.find(slug, account).orElseThrow(Problems::notFound);
        return new StudyAccess.Open(head.id(), head.slug(), head.title(), head.revision(), Role.OWNER, account, false);
    }
}
