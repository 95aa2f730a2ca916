package org.polyclave.server.study;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.formats.notation.CellNotation;
import org.polyclave.formats.notation.NotationPrinter;
import org.polyclave.formats.study.StudyCharacter;
import org.polyclave.formats.study.StudyRow;
import org.polyclave.formats.study.StudyScore;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.persistence.StudyMapper;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * Changes of cells. Every write is one change set in one transaction: all of it or nothing. A write conflicts only if a
 * cell changed since the writer saw it; then both versions are returned and nothing is overwritten.
 */
@Service
public class ScoreService {
    private final StudyMapper studies;
    private final JsonMapper json;

    ScoreService(StudyMapper studies, JsonMapper json) {
        this.studies = studies;
        this.json = json;
    }

    /** @param seen revision at which the writer saw the cell change last; 0 if never */
    public record CellEdit(String row, String character, String text, long seen) {}

    /** A cell that somebody else changed meanwhile. */
    public record Conflict(String row, String character, String yours, String theirs, String who, long revision) {}

    /** A text that is no score. */
    public record Rejection(String row, String character, String text, String reason, List<String> nearest) {}

    /** @return the new revision of the study */
    @Transactional
    public long edit(StudyAccess.Open open, List<CellEdit> edits) {
        Map<String, StudyCharacter> characters = characters(open.id());
        Set<String> rows = rowIds(open.id());
        List<Rejection> rejections = new ArrayList<>();
        List<Optional<StudyScore>> scores = new ArrayList<>();
        for (CellEdit edit : edits) {
            scores.add(read(edit, rows, characters, rejections));
        }
        if (!rejections.isEmpty()) {
            throw Problems.unprocessable("notation", rejections.get(0).reason(), Map.of("rejections", rejections));
        }
        long revision = studies.nextRevision(open.id());
        refuseConflicts(open, edits, characters);
        long set = studies.insertChangeSet(open.id(), revision, open.account(), "EDIT", null);
        for (int k = 0; k < edits.size(); k++) {
            CellEdit edit = edits.get(k);
            write(
                    open,
                    set,
                    revision,
                    edit.row(),
                    edit.character(),
                    scores.get(k).map(json::writeValueAsString).orElse(null));
        }
        return revision;
    }

    private Optional<StudyScore> read(
            CellEdit edit, Set<String> rows, Map<String, StudyCharacter> characters, List<Rejection> rejections) {
        StudyCharacter character = characters.get(edit.character());
        if (character == null || !rows.contains(edit.row())) {
            throw Problems.badRequest(
                    "no-such-cell",
                    "The study has no cell '" + edit.row() + "' × '" + edit.character() + "'. Load it again.");
        }
        if (edit.text().isBlank()) {
            return Optional.empty();
        }
        CellNotation.Reading reading = CellNotation.parse(edit.text(), character);
        if (reading instanceof CellNotation.Rejected rejected) {
            rejections.add(
                    new Rejection(edit.row(), edit.character(), edit.text(), rejected.reason(), rejected.nearest()));
            return Optional.empty();
        }
        return Optional.of(new StudyScore(
                edit.row(),
                edit.character(),
                ((CellNotation.Parsed) reading).value(),
                edit.text().strip(),
                StudyScore.Basis.JUDGEMENT,
                "",
                false,
                ""));
    }

    private void refuseConflicts(StudyAccess.Open open, List<CellEdit> edits, Map<String, StudyCharacter> characters) {
        List<Conflict> conflicts = new ArrayList<>();
        for (CellEdit edit : edits) {
            Optional<StudyMapper.CellRevision> now = studies.cellRevision(open.id(), edit.row(), edit.character());
            if (now.isPresent() && now.get().revision() != edit.seen()) {
                StudyCharacter character = characters.get(edit.character());
                String theirs = studies.score(open.id(), edit.row(), edit.character())
                        .map(b -> json.readValue(b, StudyScore.class))
                        .map(s -> character == null ? s.typed() : NotationPrinter.print(s.value(), character))
                        .orElse("");
                conflicts.add(new Conflict(
                        edit.row(),
                        edit.character(),
                        edit.text(),
                        theirs,
                        now.get().who(),
                        now.get().revision()));
            }
        }
        if (!conflicts.isEmpty()) {
            throw Problems.conflict(
                    "cell-changed",
                    conflicts.get(0).who() + " changed this cell meanwhile. Choose which version stays.",
                    Map.of("conflicts", conflicts));
        }
    }

    private void write(
            StudyAccess.Open open, long set, long revision, String row, String character, @Nullable String after) {
        String before = studies.score(open.id(), row, character).orElse(null);
        if (after == null) {
            studies.deleteScore(open.id(), row, character);
        } else {
            studies.putScore(open.id(), row, character, after, revision, open.account());
        }
        studies.putCellRevision(open.id(), row, character, revision, open.account());
        studies.insertChange(set, row, character, before, after);
    }

    /** Reverses the account's own latest change set that is not reversed yet. */
    @Transactional
    public long undo(StudyAccess.Open open) {
        return reverse(open, "UNDO", latest(open, false));
    }

    /** Takes back the account's own latest undo, as long as it has not edited since. */
    @Transactional
    public long redo(StudyAccess.Open open) {
        return reverse(open, "REDO", latest(open, true));
    }

    private Optional<StudyMapper.ChangeSetRow> latest(StudyAccess.Open open, boolean redo) {
        Set<Long> reversed = new HashSet<>();
        for (StudyMapper.ChangeSetRow set : studies.changeSetsOf(open.id(), open.account())) {
            if (reversed.contains(set.id()) || set.kind().equals("SCOPE")) {
                continue;
            }
            boolean isUndo = set.kind().equals("UNDO");
            if (redo) {
                return isUndo ? Optional.of(set) : Optional.empty();
            }
            if (!isUndo) {
                return Optional.of(set);
            }
            if (set.reverses() != null) {
                reversed.add(set.reverses());
            }
        }
        return Optional.empty();
    }

    private long reverse(StudyAccess.Open open, String kind, Optional<StudyMapper.ChangeSetRow> latest) {
        StudyMapper.ChangeSetRow target = latest.orElseThrow(() -> Problems.conflict(
                "nothing-to-" + kind.toLowerCase(java.util.Locale.ROOT),
                "There is nothing of yours to take back.",
                Map.of()));
        long revision = studies.nextRevision(open.id());
        List<StudyMapper.ChangeRow> changes = studies.changes(target.id());
        List<String> others = new ArrayList<>();
        for (StudyMapper.ChangeRow change : changes) {
            studies.cellRevision(open.id(), change.rowId(), change.characterId())
                    .filter(now -> now.revision() != target.revision())
                    .ifPresent(
                            now -> others.add(change.rowId() + " × " + change.characterId() + " (" + now.who() + ")"));
        }
        if (!others.isEmpty()) {
            throw Problems.conflict(
                    "changed-since",
                    "Changed since, so it is not taken back: " + String.join(", ", others) + ".",
                    Map.of("cells", others));
        }
        long set = studies.insertChangeSet(open.id(), revision, open.account(), kind, target.id());
        for (StudyMapper.ChangeRow change : changes) {
            write(open, set, revision, change.rowId(), change.characterId(), change.before());
        }
        return revision;
    }

    private Map<String, StudyCharacter> characters(long study) {
        Map<String, StudyCharacter> byId = new java.util.HashMap<>();
        for (String body : studies.characters(study)) {
            StudyCharacter character = json.readValue(body, StudyCharacter.class);
            byId.put(character.id(), character);
        }
        return byId;
    }

    private Set<String> rowIds(long study) {
        Set<String> ids = new HashSet<>();
        studies.rows(study)
                .forEach(b -> ids.add(json.readValue(b, StudyRow.class).id()));
        return ids;
    }
}
