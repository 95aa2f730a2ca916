package org.polyclave.server.matrix.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.matrix.ScoreService;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Scores: cells written, and what became of a cell. */
@RestController
@RequestMapping("/api/v1/studies/{slug}")
class ScoreController {
    private static final int MOST_EDITS = 20_000;

    record EditRequest(@NotEmpty @Size(max = MOST_EDITS) List<ScoreService.CellEdit> edits) {}

    record RevisionResponse(long revision) {}

    private final ScoreService scores;
    private final ChangeLog log;

    ScoreController(ScoreService scores, ChangeLog log) {
        this.scores = scores;
        this.log = log;
    }

    /** Writes scores as one change: all of them, or none. */
    @PostMapping("/scores")
    RevisionResponse edit(@AtLeast(Role.SCORER) OpenStudy open, @Valid @RequestBody EditRequest request) {
        return new RevisionResponse(scores.edit(open, request.edits()));
    }

    /** The changes of a cell, the newest first. */
    @GetMapping("/history")
    List<ChangeLog.CellHistory> history(
            @AtLeast(Role.VIEWER) OpenStudy open, @RequestParam String row, @RequestParam String character) {
        return log.history(open, row, character);
    }
}
