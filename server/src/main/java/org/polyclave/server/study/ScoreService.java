package org.polyclave.server.study;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
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
import org.springframework.web.ErrorResponseException;
import tools.jackson.databind.json.JsonMapper;

/** Changes of cells, typed in notation. Where somebody else was faster, both versions are returned. */
@Service
public class ScoreService {
    private final StudyMapper studies;
    private final ChangeLog log;
    private final JsonMapper json;

    ScoreService(StudyMapper studies, ChangeLog log, JsonMapper json) {
        this.studies = studies;
        this.log = log;
        this.json = json;
    }

    /** @param seen revision at which the writer saw the cell change last; 0 if never */
    public record CellEdit(String row, String character, String text, long seen) {}

    /** A cell that somebody else changed meanwhile. */
    public record Conflict(String row, String character, String yours, String theirs, String who, long revision) {}

    /** A text that is no score. */
    public record Rejection(String row, String character, String text, String reason, List<String> nearest) {}

    /** @return the new revision of the study */
    public long edit(StudyAccess.Open open, List<CellEdit> edits) {
        Map<String, StudyCharacter> characters = characters(open.id());
        Set<String> rows = rowIds(open.id());
        List<Rejection> rejections = new ArrayList<>();
        Map<StudyObject, ChangeLog.Edit> changes = new LinkedHashMap<>();
        for (CellEdit edit : edits) {
            StudyObject cell = StudyObject.cell(edit.row(), edit.character());
            String after = read(edit, rows, characters, rejections)
                    .map(json::writeValueAsString)
                    .orElse(null);
            changes.put(cell, new ChangeLog.Edit(cell, after, edit.seen()));
        }
        if (!rejections.isEmpty()) {
            throw Problems.unprocessable("notation", rejections.get(0).reason(), Map.of("rejections", rejections));
        }
        try {
            return log.write(open, List.copyOf(changes.values()));
        } catch (ChangeLog.Conflicts conflicts) {
            throw told(conflicts, edits, characters);
        }
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

    private ErrorResponseException told(
            ChangeLog.Conflicts conflicts, List<CellEdit> edits, Map<String, StudyCharacter> characters) {
        List<Conflict> told = new ArrayList<>();
        for (ChangeLog.Conflict conflict : conflicts.found()) {
            StudyObject cell = conflict.object();
            String yours = edits.stream()
                    .filter(e -> e.row().equals(cell.id()) && e.character().equals(cell.character()))
                    .map(CellEdit::text)
                    .reduce("", (first, last) -> last);
            told.add(new Conflict(
                    cell.id(),
                    cell.character(),
                    yours,
                    print(conflict.now(), characters.get(cell.character())),
                    conflict.who(),
                    conflict.revision()));
        }
        return Problems.conflict(
                "cell-changed",
                told.get(0).who() + " changed this cell meanwhile. Choose which version stays.",
                Map.of("conflicts", told));
    }

    private String print(@Nullable String content, @Nullable StudyCharacter character) {
        if (content == null || character == null) {
            return "";
        }
        return NotationPrinter.print(json.readValue(content, StudyScore.class).value(), character);
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
