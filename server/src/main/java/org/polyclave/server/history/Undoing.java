package org.polyclave.server.history;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.persistence.ChangeMapper;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.ScoreRules;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * Undo and redo of whatever an account changed itself, each as a new change set. What others changed since, or built upon, is
 * stepped over and named, and the next one is taken back: nobody is stuck, and nobody's work is lost. Scores and readings
 * are stepped over one by one, any other change as a whole.
 */
@Component
public class Undoing {
    private static final int MOST_LISTED = 30;
    private static final int MOST_NAMED = 10;

    private final ChangeMapper changes;
    private final ChangeLog log;
    private final StudyStore store;
    private final JsonMapper json;

    Undoing(ChangeMapper changes, ChangeLog log, StudyStore store, JsonMapper json) {
        this.changes = changes;
        this.log = log;
        this.store = store;
        this.json = json;
    }

    /** What happened to an object. */
    public enum How {
        ADDED,
        CHANGED,
        REMOVED
    }

    /**
     * What one change set did to objects of one kind.
     *
     * @param name of the first of them, as people know it
     */
    public record Done(StudyObject.Kind kind, How how, int count, String name) {}

    /**
     * A change that can be taken back or made again.
     *
     * @param id of its change set
     */
    public record Waiting(long id, String at, List<Done> done) {}

    /** The next ones first. */
    public record Lists(List<Waiting> undo, List<Waiting> redo) {}

    /** Left as it is, because somebody else changed it since; {@code who} is empty where it is built upon. */
    public record Passed(String name, String who) {}

    /**
     * @param done what was reversed, as it was done in the first place; empty if everything was stepped over
     * @param more how many further objects were stepped over
     */
    public record Reversed(long revision, List<Done> done, List<Passed> passed, int more) {}

    private record Stacks(Deque<ChangeMapper.ChangeSetRow> done, Deque<ChangeMapper.ChangeSetRow> undone) {}

    public Lists lists(OpenStudy open) {
        Stacks stacks = stacks(open);
        Study study = store.load(open.id()).study();
        return new Lists(listed(stacks.done, study), listed(stacks.undone, study));
    }

    private List<Waiting> listed(Deque<ChangeMapper.ChangeSetRow> stack, Study study) {
        List<ChangeMapper.ChangeSetRow> next = stack.stream().limit(MOST_LISTED).toList();
        Map<Long, List<ChangeMapper.DoneRow>> bySet =
                changes
                        .done(json.writeValueAsString(
                                next.stream().map(ChangeMapper.ChangeSetRow::id).toList()))
                        .stream()
                        .collect(Collectors.groupingBy(ChangeMapper.DoneRow::set));
        return next.stream()
                .map(s -> new Waiting(
                        s.id(),
                        s.at(),
                        bySet.getOrDefault(s.id(), List.of()).stream()
                                .map(d -> done(d, study))
                                .toList()))
                .toList();
    }

    private Done done(ChangeMapper.DoneRow row, Study study) {
        StudyObject first = StudyObject.of(row.first());
        return new Done(first.kind(), How.valueOf(row.how()), row.count(), name(first, row.content(), study));
    }

    /** Undoes the account's own latest edit that can be undone. */
    @Transactional
    public Reversed undo(OpenStudy open) {
        return step(open, true);
    }

    /** Redoes what the account undid last, as long as it has not edited since. */
    @Transactional
    public Reversed redo(OpenStudy open) {
        return step(open, false);
    }

    private Reversed step(OpenStudy open, boolean undo) {
        // Before the stack is read: two presses at once must not undo the same change.
        changes.lock(open.id());
        Stacks stacks = stacks(open);
        Deque<ChangeMapper.ChangeSetRow> stack = undo ? stacks.done : stacks.undone;
        if (stack.isEmpty()) {
            throw Problems.conflict(
                    undo ? ProblemCode.NOTHING_TO_UNDO : ProblemCode.NOTHING_TO_REDO,
                    undo ? "You have no change to undo." : "You have no change to redo.",
                    Map.of());
        }
        Study study = store.load(open.id()).study();
        List<Passed> passed = new ArrayList<>();
        long revision = 0;
        List<ChangeMapper.ChangeRow> reversed = List.of();
        while (reversed.isEmpty() && !stack.isEmpty()) {
            ChangeMapper.ChangeSetRow target = stack.pop();
            revision = changes.nextRevision(open.id());
            reversed = reverse(open, undo, target, revision, study, passed);
        }
        return new Reversed(
                revision,
                told(reversed, study),
                passed.stream().limit(MOST_NAMED).toList(),
                Math.max(0, passed.size() - MOST_NAMED));
    }

    /** Reverses what it can of a change set, and notes the rest; a set of which nothing can be reversed counts as passed, too. */
    private List<ChangeMapper.ChangeRow> reverse(
            OpenStudy open,
            boolean undo,
            ChangeMapper.ChangeSetRow target,
            long revision,
            Study study,
            List<Passed> passed) {
        List<ChangeMapper.ChangeRow> rows = changes.changes(target.id());
        Map<String, ChangeMapper.Revision> known = log.revisions(
                open.id(), rows.stream().map(r -> StudyObject.of(r.object())).toList());
        Set<String> touched = rows.stream().map(ChangeMapper.ChangeRow::object).collect(Collectors.toSet());
        List<ChangeMapper.ChangeRow> free = new ArrayList<>();
        List<Passed> kept = new ArrayList<>();
        for (ChangeMapper.ChangeRow row : rows) {
            ChangeMapper.Revision last = known.get(row.object());
            long expected = undo ? target.revision() : row.revisionBefore();
            if (last != null && last.revision() != expected) {
                kept.add(new Passed(name(row, study), last.who()));
            } else if (!fits(row, undo, study, touched)) {
                kept.add(new Passed(name(row, study), ""));
            } else {
                free.add(row);
            }
        }
        boolean onlyData =
                rows.stream().allMatch(r -> StudyObject.of(r.object()).isData());
        builtUpon(rows, undo, study).forEach(kept::add);
        if (!kept.isEmpty() && !onlyData) {
            free.clear();
        }
        passed.addAll(kept);
        long set = changes.insertChangeSet(open.id(), revision, open.account(), undo ? "UNDO" : "REDO", target.id());
        log.apply(
                open,
                set,
                revision,
                free.stream().map(r -> back(r, undo, target)).toList());
        return free;
    }

    private static ChangeLog.Step back(ChangeMapper.ChangeRow row, boolean undo, ChangeMapper.ChangeSetRow target) {
        StudyObject object = StudyObject.of(row.object());
        return undo
                ? new ChangeLog.Step(object, row.after(), row.before(), target.revision(), row.revisionBefore())
                : new ChangeLog.Step(object, row.before(), row.after(), row.revisionBefore(), target.revision());
    }

    /** Whether a score that would come back still has its states; those that the same change brings back come with it. */
    private boolean fits(ChangeMapper.ChangeRow row, boolean undo, Study study, Set<String> touched) {
        StudyObject object = StudyObject.of(row.object());
        String after = undo ? row.before() : row.after();
        Optional<StudyCharacter> character = study.character(object.character());
        boolean compared = object.kind() == StudyObject.Kind.CELL
                && after != null
                && character.isPresent()
                && !touched.contains(StudyObject.character(object.character()).key());
        return !compared
                || ScoreRules.fits(json.readValue(after, StudyScore.class).value(), character.orElseThrow());
    }

    /** Rows and characters that would go, in which others scored since: their scores would go with them. */
    private List<Passed> builtUpon(List<ChangeMapper.ChangeRow> rows, boolean undo, Study study) {
        Set<String> going = new HashSet<>();
        Set<String> cells = new HashSet<>();
        for (ChangeMapper.ChangeRow row : rows) {
            StudyObject object = StudyObject.of(row.object());
            boolean goes = (undo ? row.before() : row.after()) == null;
            if (goes && (object.kind() == StudyObject.Kind.ROW || object.kind() == StudyObject.Kind.CHARACTER)) {
                going.add(object.key());
            }
            cells.add(object.key());
        }
        if (going.isEmpty()) {
            return List.of();
        }
        Set<String> built = study.scores().stream()
                .filter(s ->
                        !cells.contains(StudyObject.cell(s.row(), s.character()).key()))
                .flatMap(s -> List.of("row/" + s.row(), "character/" + s.character()).stream())
                .filter(going::contains)
                .collect(Collectors.toSet());
        study.rows().stream()
                .filter(r -> r.parent() != null && !going.contains("row/" + r.id()))
                .map(r -> "row/" + r.parent())
                .filter(going::contains)
                .forEach(built::add);
        return rows.stream()
                .filter(r -> built.contains(r.object()))
                .map(r -> new Passed(name(r, study), ""))
                .toList();
    }

    /** What an account could undo or redo, the next on top. */
    private Stacks stacks(OpenStudy open) {
        List<ChangeMapper.ChangeSetRow> sets = new ArrayList<>(changes.changeSetsOf(open.id(), open.account()));
        sets.sort((a, b) -> Long.compare(a.id(), b.id()));
        Stacks stacks = new Stacks(new ArrayDeque<>(), new ArrayDeque<>());
        for (ChangeMapper.ChangeSetRow set : sets) {
            switch (set.kind()) {
                case "UNDO" -> move(stacks.done, stacks.undone);
                case "REDO" -> move(stacks.undone, stacks.done);
                default -> {
                    stacks.done.push(set);
                    stacks.undone.clear();
                }
            }
        }
        return stacks;
    }

    /** The oldest sets of a long history are not looked at, so what was taken back may not be there. */
    private static void move(Deque<ChangeMapper.ChangeSetRow> from, Deque<ChangeMapper.ChangeSetRow> to) {
        if (!from.isEmpty()) {
            to.push(from.pop());
        }
    }

    /** Objects of one kind to which the same happened, together. */
    private List<Done> told(List<ChangeMapper.ChangeRow> rows, Study study) {
        Map<List<Object>, List<ChangeMapper.ChangeRow>> groups = rows.stream()
                .collect(Collectors.groupingBy(
                        r -> List.of(StudyObject.of(r.object()).kind(), how(r)),
                        LinkedHashMap::new,
                        Collectors.toList()));
        return groups.values().stream()
                .map(of -> new Done(
                        StudyObject.of(of.get(0).object()).kind(), how(of.get(0)), of.size(), name(of.get(0), study)))
                .toList();
    }

    private static How how(ChangeMapper.ChangeRow row) {
        return row.before() == null ? How.ADDED : row.after() == null ? How.REMOVED : How.CHANGED;
    }

    private String name(ChangeMapper.ChangeRow row, Study study) {
        return name(StudyObject.of(row.object()), row.after() == null ? row.before() : row.after(), study);
    }

    /** As people know it: by its label where it has one. */
    private String name(StudyObject object, @Nullable String content, Study study) {
        return switch (object.kind()) {
            case CELL -> rowName(study, object.id()) + " × " + characterName(study, object.character());
            case ROW -> study.row(object.id()).map(StudyRow::name).orElse(labelled(content, object.id(), "label"));
            case CHARACTER ->
                study.character(object.id()).map(StudyCharacter::label).orElse(labelled(content, object.id(), "label"));
            case TERM -> labelled(content, object.id(), "term");
            case SPECIMEN -> labelled(content, object.id(), "code");
            case PICTURE -> labelled(content, object.id(), "shows");
            case READING -> labelled(content, object.id(), "typed");
            case REFERENCE, CLAIM, OPINION -> object.id();
            case SCOPE, OUTSIDE -> "";
        };
    }

    private static String rowName(Study study, String id) {
        return study.row(id).map(StudyRow::name).orElse(id);
    }

    private static String characterName(Study study, String id) {
        return study.character(id).map(StudyCharacter::label).orElse(id);
    }

    private String labelled(@Nullable String content, String id, String field) {
        return content == null
                ? id
                : json.readTree(content).path("body").path(field).asString(id);
    }
}
