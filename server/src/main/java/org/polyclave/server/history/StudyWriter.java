package org.polyclave.server.history;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.persistence.ChangeMapper;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.change.Refused;
import org.polyclave.study.change.StudyDifference;
import org.polyclave.study.change.StudyDifference.Change;
import org.polyclave.study.change.StudyDifference.How;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Opinion;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.rule.RuleWording;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * Writes what services decide: objects one by one, or everything in which a study after a change differs from the study
 * before. Every write is one undoable change set, made under a lock and held to the rules of studies.
 */
@Component
public class StudyWriter {
    private static final int MOST_NAMED_CONFLICTS = 10;

    private final ChangeLog log;
    private final ChangeMapper changes;
    private final StudyStore store;
    private final JsonMapper json;
    private final Clock clock;

    StudyWriter(ChangeLog log, ChangeMapper changes, StudyStore store, JsonMapper json, Clock clock) {
        this.log = log;
        this.changes = changes;
        this.store = store;
        this.json = json;
        this.clock = clock;
    }

    /** What was written, under the identifier it has now. */
    public record Written(String id, long revision) {}

    /** What a change would do, and the revision of the study that it was worked out from. */
    public record Planned(long revision, List<Change> changes) {}

    /** Works out what a change would do, and does nothing. */
    public Planned plan(OpenStudy open, UnaryOperator<Study> change) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        return new Planned(
                snapshot.revision(), StudyDifference.between(snapshot.study(), after(snapshot.study(), change)));
    }

    /**
     * Makes a change of a whole study.
     *
     * @param baseRevision revision of the study that the change was decided on; what others changed since is not overwritten
     */
    @Transactional
    public Written replace(OpenStudy open, long baseRevision, UnaryOperator<Study> change) {
        Locked locked = lock(open);
        Study after = store.keptPictures(open.id(), locked.study(), after(locked.study(), change));
        List<ChangeLog.Edit> edits = new ArrayList<>();
        List<String> others = new ArrayList<>();
        Bodies bodies = new Bodies(open.id(), after);
        for (Change one : StudyDifference.between(locked.study(), after)) {
            StudyObject object = object(one);
            long revision = locked.snapshot().revision(object);
            if (revision > baseRevision) {
                others.add(object.words());
            }
            edits.add(new ChangeLog.Edit(object, one.how() == How.REMOVED ? null : bodies.of(one), revision));
        }
        if (!others.isEmpty()) {
            throw Problems.conflict(
                    ProblemCode.CHANGED_MEANWHILE,
                    "Others changed this meanwhile: "
                            + String.join(", ", others.subList(0, Math.min(MOST_NAMED_CONFLICTS, others.size())))
                            + ". Look at the change again.",
                    Map.of("objects", others));
        }
        return edits.isEmpty() ? new Written("", locked.snapshot().revision()) : write(open, "", edits);
    }

    private Study after(Study before, UnaryOperator<Study> change) {
        try {
            Study after = change.apply(before);
            refuseBroken(before, after);
            refuseFuture(before, after);
            return after;
        } catch (Refused refused) {
            throw Problems.unprocessable(ProblemCode.REFUSED, refused.sentence(), Map.of());
        }
    }

    private static StudyObject object(Change change) {
        return switch (change.kind()) {
            case CELL -> StudyObject.cell(change.id(), change.character());
            case ROW -> StudyObject.row(change.id());
            case CHARACTER -> StudyObject.character(change.id());
            case TERM -> StudyObject.entry(StudyObject.Kind.TERM, change.id());
            case REFERENCE -> StudyObject.entry(StudyObject.Kind.REFERENCE, change.id());
            case CLAIM -> StudyObject.entry(StudyObject.Kind.CLAIM, change.id());
            case PICTURE -> StudyObject.entry(StudyObject.Kind.PICTURE, change.id());
            case OPINION -> StudyObject.entry(StudyObject.Kind.OPINION, change.id());
            case SPECIMEN -> StudyObject.entry(StudyObject.Kind.SPECIMEN, change.id());
            case READING -> StudyObject.entry(StudyObject.Kind.READING, change.id());
            case SCOPE -> StudyObject.SCOPE;
            case OUTSIDE -> StudyObject.OUTSIDE;
        };
    }

    /** New contents of objects; new ones stand between their neighbours in the changed study. */
    private final class Bodies {
        private final Study after;
        private final Map<String, StudyScore> scores = new HashMap<>();
        private final Map<String, String> contents = new HashMap<>();

        Bodies(long study, Study after) {
            this.after = after;
            after.scores().forEach(s -> scores.put(s.row() + '/' + s.character(), s));
            place(after.rows(), r -> "row/" + r.id(), prefixed("row/", changes.rowPlaces(study)));
            place(
                    after.characters(),
                    (StudyCharacter c) -> "character/" + c.id(),
                    prefixed("character/", changes.characterPlaces(study)));
            Map<String, Double> entries = prefixed("", changes.entryPlaces(study));
            place(after.glossary(), (GlossaryTerm t) -> "term/" + t.id(), entries);
            place(after.references(), (Reference r) -> "reference/" + r.id(), entries);
            place(after.claims(), (Claim c) -> "claim/" + c.id(), entries);
            place(after.pictures(), (Picture p) -> "picture/" + p.id(), entries);
            place(after.opinions(), (Opinion o) -> "opinion/" + o.id(), entries);
            place(after.specimens(), (Specimen s) -> "specimen/" + s.id(), entries);
            place(after.readings(), (Reading r) -> "reading/" + r.id(), entries);
        }

        private static Map<String, Double> prefixed(String prefix, List<ChangeMapper.PlaceRow> places) {
            Map<String, Double> byKey = new HashMap<>();
            places.forEach(p -> byKey.put(prefix + p.id(), p.position()));
            return byKey;
        }

        private <T> void place(List<T> objects, Function<T, String> key, Map<String, Double> places) {
            double last = -1;
            for (int i = 0; i < objects.size(); i++) {
                Double own = places.get(key.apply(objects.get(i)));
                double position = own == null ? between(last, next(objects, i, key, places)) : own;
                last = position;
                contents.put(
                        key.apply(objects.get(i)),
                        json.writeValueAsString(Map.of("position", position, "body", objects.get(i))));
            }
        }

        private static <T> @Nullable Double next(
                List<T> objects, int from, Function<T, String> key, Map<String, Double> places) {
            for (int i = from + 1; i < objects.size(); i++) {
                Double position = places.get(key.apply(objects.get(i)));
                if (position != null) {
                    return position;
                }
            }
            return null;
        }

        private static double between(double last, @Nullable Double next) {
            return next == null || next <= last ? last + 1 : (last + next) / 2;
        }

        String of(Change change) {
            return switch (change.kind()) {
                case CELL ->
                    json.writeValueAsString(Objects.requireNonNull(scores.get(change.id() + '/' + change.character())));
                case SCOPE -> json.writeValueAsString(new Scope(after.title(), after.scope()));
                case OUTSIDE -> json.writeValueAsString(after.nearButOutside());
                default -> Objects.requireNonNull(contents.get(object(change).key()));
            };
        }
    }

    /** What is kept of a study's title and scope. */
    public record Scope(String title, StudyScope scope) {}

    /** A study that nobody else can change until the transaction ends. */
    public record Locked(StudyStore.Snapshot snapshot, Study study) {}

    public Locked lock(OpenStudy open) {
        changes.lock(open.id());
        StudyStore.Snapshot snapshot = store.load(open.id());
        return new Locked(snapshot, snapshot.study());
    }

    public Written write(OpenStudy open, String id, List<ChangeLog.Edit> edits) {
        try {
            return new Written(id, log.write(open, edits));
        } catch (ChangeLog.Conflicts conflicts) {
            ChangeLog.Conflict first = conflicts.found().get(0);
            throw Problems.conflict(
                    ProblemCode.CHANGED_MEANWHILE,
                    first.who() + " changed " + first.object().words()
                            + " meanwhile. What you typed is kept; look at the change and save again.",
                    Map.of(
                            "object",
                            first.object().key(),
                            "who",
                            first.who(),
                            "revision",
                            first.revision(),
                            "now",
                            first.now() == null ? "" : first.now()));
        }
    }

    public ChangeLog.Edit edit(StudyObject object, Object body, double position, long baseRevision) {
        return new ChangeLog.Edit(
                object, json.writeValueAsString(Map.of("position", position, "body", body)), baseRevision);
    }

    public static ChangeLog.Edit removal(Locked locked, StudyObject object) {
        return new ChangeLog.Edit(object, null, locked.snapshot.revision(object));
    }

    /** Where the rows of a study stand. */
    public Positions rows(OpenStudy open) {
        return positions(changes.rowPlaces(open.id()));
    }

    /** Where its characters stand. */
    public Positions characters(OpenStudy open) {
        return positions(changes.characterPlaces(open.id()));
    }

    /** Where its terms, references, claims, pictures, opinions, specimens and readings stand, by their keys. */
    public Positions entries(OpenStudy open) {
        return positions(changes.entryPlaces(open.id()));
    }

    private static Positions positions(List<ChangeMapper.PlaceRow> places) {
        return new Positions(places.stream()
                .map(p -> new Positions.Place(p.id(), p.position()))
                .toList());
    }

    /** An identifier that no object of the kind ever had, made of a slug. */
    public String mint(OpenStudy open, String kind, String slug, String otherwise) {
        return Slug.unused(
                slug.isEmpty() ? otherwise : slug,
                id -> changes.isTaken(open.id(), kind.replace("/", ""), id, kind + id));
    }

    public static void refuseBroken(Study before, Study after) {
        List<StudyRules.Violation> broken = new ArrayList<>(StudyRules.check(after));
        broken.removeAll(StudyRules.check(before));
        refuse(broken);
    }

    /** What is dated after today has not happened yet. Dates that were there before stay as they are. */
    public void refuseFuture(Study before, Study after) {
        String today = LocalDate.now(clock).toString();
        Set<Specimen> known = new HashSet<>(before.specimens());
        List<String> toCome = after.specimens().stream()
                .filter(s -> !known.contains(s))
                .flatMap(s ->
                        s.dates().filter(d -> d.compareTo(today) > 0).distinct().map(d -> "'" + s.code() + "': " + d))
                .toList();
        if (!toCome.isEmpty()) {
            String end =
                    toCome.size() == 1 ? " is still to come. Check the date." : " are still to come. Check the dates.";
            throw Problems.unprocessable(ProblemCode.RULES, String.join("; ", toCome) + end, Map.of("dates", toCome));
        }
    }

    /** A rule that would not hold, as a problem tells it. */
    private record BrokenRule(String place, String field, String sentence) {}

    public static void refuse(List<StudyRules.Violation> violations) {
        if (!violations.isEmpty()) {
            throw Problems.unprocessable(
                    ProblemCode.RULES,
                    RuleWording.sentence(violations.get(0)),
                    Map.of(
                            "violations",
                            violations.stream()
                                    .map(v -> new BrokenRule(v.place(), v.field(), RuleWording.sentence(v)))
                                    .toList()));
        }
    }
}
