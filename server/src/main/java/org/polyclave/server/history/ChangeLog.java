package org.polyclave.server.history;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.account.AccountService;
import org.polyclave.server.history.persistence.ChangeMapper;
import org.polyclave.server.store.StudyObject;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * The only way by which a study changes. Every write is one change set in one transaction: all of it or nothing. A write
 * conflicts only if one of its objects changed since the writer saw it; then nothing is overwritten.
 */
@Component
public class ChangeLog {
    private final ChangeMapper changes;
    private final AccountService accounts;
    private final LoweredHazards hazards;
    private final JsonMapper json;

    ChangeLog(ChangeMapper changes, AccountService accounts, LoweredHazards hazards, JsonMapper json) {
        this.changes = changes;
        this.accounts = accounts;
        this.hazards = hazards;
        this.json = json;
    }

    /**
     * A change that somebody wants.
     *
     * @param after new content as JSON; null: the object goes
     * @param baseRevision revision of the content that the writer saw; 0 if it was never changed
     */
    public record Edit(StudyObject object, @Nullable String after, long baseRevision) {}

    /** An object that somebody else changed meanwhile, as it is now. */
    public record Conflict(StudyObject object, @Nullable String now, String who, long revision) {}

    /** Nothing was written, because others changed the same objects. */
    public static final class Conflicts extends RuntimeException {
        private static final long serialVersionUID = 1;

        private final transient List<Conflict> found;

        Conflicts(List<Conflict> found) {
            super("Changed meanwhile: "
                    + found.stream().map(c -> c.object().words()).collect(Collectors.joining(", ")));
            this.found = found;
        }

        public List<Conflict> found() {
            return found;
        }
    }

    /** What becomes of an object. */
    record Step(
            StudyObject object,
            @Nullable String before,
            @Nullable String after,
            long revisionBefore,
            long revision) {}

    /**
     * Writes edits of different objects as one change set.
     *
     * @return the new revision of the study
     * @throws Conflicts if an object changed since its writer saw it
     */
    @Transactional
    public long write(OpenStudy open, List<Edit> edits) {
        long revision = changes.nextRevision(open.id());
        List<StudyObject> objects = edits.stream().map(Edit::object).toList();
        Map<String, ChangeMapper.Revision> known = revisions(open.id(), objects);
        Map<String, String> now = contents(open.id(), objects);
        List<Conflict> conflicts = new ArrayList<>();
        List<Step> steps = new ArrayList<>();
        for (Edit edit : edits) {
            String key = edit.object().key();
            ChangeMapper.Revision last = known.get(key);
            long revisionNow = last == null ? 0 : last.revision();
            if (last != null && revisionNow != edit.baseRevision()) {
                conflicts.add(new Conflict(edit.object(), now.get(key), last.who(), revisionNow));
            }
            steps.add(new Step(edit.object(), now.get(key), edit.after(), revisionNow, revision));
        }
        if (!conflicts.isEmpty()) {
            throw new Conflicts(conflicts);
        }
        apply(open, changes.insertChangeSet(open.id(), revision, open.account(), "EDIT", null), revision, steps);
        return revision;
    }

    /** What changed after a revision. */
    public List<StudyObject> changedSince(long study, long revision) {
        return changes.changedSince(study, revision).stream()
                .map(StudyObject::of)
                .toList();
    }

    /** A change of a cell. */
    public record CellHistory(String who, String at, String kind) {}

    /** A cell's changes, newest first. */
    public List<CellHistory> history(OpenStudy open, String row, String character) {
        return changes.historyOf(open.id(), StudyObject.cell(row, character).key()).stream()
                .map(c -> new CellHistory(c.who(), c.at(), c.kind()))
                .toList();
    }

    /** What each object's content is of, by its key; objects that were never changed have none. */
    Map<String, ChangeMapper.Revision> revisions(long study, List<StudyObject> objects) {
        return changes
                .revisions(
                        study,
                        json.writeValueAsString(
                                objects.stream().map(StudyObject::key).toList()))
                .stream()
                .collect(Collectors.toMap(ChangeMapper.Revision::object, r -> r));
    }

    private Map<String, String> contents(long study, List<StudyObject> objects) {
        ArrayNode cells = json.createArrayNode();
        ArrayNode others = json.createArrayNode();
        for (StudyObject object : objects) {
            if (object.kind() == StudyObject.Kind.CELL) {
                cells.add(cell(object));
            } else {
                others.add(json.createObjectNode()
                        .put("kind", object.kind().name().toLowerCase(Locale.ROOT))
                        .put("id", object.id()));
            }
        }
        Map<String, String> contents = new HashMap<>();
        if (!cells.isEmpty()) {
            changes.cells(study, cells.toString()).forEach(c -> contents.put(c.object(), c.body()));
        }
        if (!others.isEmpty()) {
            changes.others(study, others.toString()).forEach(c -> contents.put(c.object(), c.body()));
        }
        return contents;
    }

    private ObjectNode cell(StudyObject object) {
        return json.createObjectNode().put("row", object.id()).put("character", object.character());
    }

    /** Cells stand on rows and characters, so they go before these go, and come after these came. */
    void apply(OpenStudy open, long set, long revision, List<Step> wanted) {
        List<Step> steps = wanted.stream()
                .map(s -> s.object().kind() == StudyObject.Kind.ROW && s.before() != null && s.after() != null
                        ? new Step(
                                s.object(),
                                s.before(),
                                hazards.held(s.before(), s.after(), whoWrites(open)),
                                s.revisionBefore(),
                                s.revision())
                        : s)
                .toList();
        Map<StudyObject.Kind, List<Step>> gone = new EnumMap<>(StudyObject.Kind.class);
        Map<StudyObject.Kind, List<Step>> put = new EnumMap<>(StudyObject.Kind.class);
        for (StudyObject.Kind kind : StudyObject.Kind.values()) {
            gone.put(kind, new ArrayList<>());
            put.put(kind, new ArrayList<>());
        }
        ArrayNode log = json.createArrayNode();
        for (Step step : steps) {
            (step.after() == null ? gone : put)
                    .getOrDefault(step.object().kind(), new ArrayList<>())
                    .add(step);
            log.add(json.createObjectNode()
                    .put("object", step.object().key())
                    .put("revisionBefore", step.revisionBefore())
                    .put("revision", step.revision())
                    .set("before", tree(step.before()))
                    .set("after", tree(step.after())));
        }
        long study = open.id();
        cells(gone).ifPresent(cells -> changes.removeCells(study, cells));
        each(put, StudyObject.Kind.ROW, s -> changes.putRow(study, s.object().id(), content(s)));
        each(
                put,
                StudyObject.Kind.CHARACTER,
                s -> changes.putCharacter(study, s.object().id(), content(s)));
        entries(put).ifPresent(entries -> changes.putEntries(study, entries));
        entries(gone).ifPresent(entries -> changes.removeEntries(study, entries));
        each(put, StudyObject.Kind.SCOPE, s -> changes.putScope(study, content(s)));
        each(put, StudyObject.Kind.OUTSIDE, s -> changes.putOutside(study, content(s)));
        cells(put).ifPresent(cells -> changes.putCells(study, cells, revision, open.account()));
        each(
                gone,
                StudyObject.Kind.ROW,
                s -> changes.removeRow(study, s.object().id()));
        each(
                gone,
                StudyObject.Kind.CHARACTER,
                s -> changes.removeCharacter(study, s.object().id()));
        changes.log(study, set, open.account(), log.toString());
    }

    private static void each(
            Map<StudyObject.Kind, List<Step>> steps, StudyObject.Kind kind, java.util.function.Consumer<Step> action) {
        steps.getOrDefault(kind, List.of()).forEach(action);
    }

    private java.util.Optional<String> entries(Map<StudyObject.Kind, List<Step>> steps) {
        ArrayNode entries = json.createArrayNode();
        steps.forEach((kind, of) -> {
            for (Step step : new StudyObject(kind, "", "").isEntry() ? of : List.<Step>of()) {
                entries.add(json.createObjectNode()
                        .put("kind", kind.name().toLowerCase(Locale.ROOT))
                        .put("id", step.object().id())
                        .set("after", tree(step.after())));
            }
        });
        return entries.isEmpty() ? java.util.Optional.empty() : java.util.Optional.of(entries.toString());
    }

    private java.util.Optional<String> cells(Map<StudyObject.Kind, List<Step>> steps) {
        ArrayNode cells = json.createArrayNode();
        for (Step step : steps.getOrDefault(StudyObject.Kind.CELL, List.of())) {
            cells.add(cell(step.object()).set("after", tree(step.after())));
        }
        return cells.isEmpty() ? java.util.Optional.empty() : java.util.Optional.of(cells.toString());
    }

    private String whoWrites(OpenStudy open) {
        return accounts.displayName(open.account());
    }

    private JsonNode tree(@Nullable String content) {
        return content == null ? json.getNodeFactory().nullNode() : json.readTree(content);
    }

    private static String content(Step step) {
        return java.util.Objects.requireNonNull(step.after());
    }
}
