package org.polyclave.server.secondopinion.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.secondopinion.AssignmentService;
import org.polyclave.server.secondopinion.OpinionService;
import org.polyclave.study.agreement.ScorerAgreement;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Second scorers: their assignments, their scores, how well they agree, and what is settled. */
@RestController
@RequestMapping("/api/v1/studies/{slug}")
class SecondOpinionController {
    record AssignRequest(
            @NotNull String scorer,
            @NotNull List<String> rows,
            @NotNull List<String> characters,
            @NotNull String note) {}

    record SettleRequest(
            @NotNull String row,
            @NotNull String character,
            @NotNull String text,
            @NotNull String note,
            long baseRevision) {}

    private final AssignmentService assignments;
    private final OpinionService opinions;

    SecondOpinionController(AssignmentService assignments, OpinionService opinions) {
        this.assignments = assignments;
        this.opinions = opinions;
    }

    /** Who was asked to score without seeing other scores. */
    @GetMapping("/assignments")
    List<AssignmentService.Assignment> list(@AtLeast(value = Role.SCORER, evenBlind = true) OpenStudy open) {
        return assignments.list(open);
    }

    /** Asks a member for a second opinion. */
    @PostMapping("/assignments")
    void give(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody AssignRequest request) {
        assignments.give(open, request.scorer(), request.rows(), request.characters(), request.note());
    }

    /** What a second scorer is asked to score, with their own scores only. */
    @GetMapping("/assignments/{id}")
    AssignmentService.Sheet sheet(
            @AtLeast(value = Role.SCORER, evenBlind = true) OpenStudy open, @PathVariable long id) {
        return assignments.sheet(open, id);
    }

    /** Writes one score of a second scorer. */
    @PutMapping("/assignments/{id}/score")
    StudyWriter.Written score(
            @AtLeast(value = Role.SCORER, evenBlind = true) OpenStudy open,
            @PathVariable long id,
            @Valid @RequestBody OpinionService.Draft draft) {
        return assignments.score(open, id, draft);
    }

    /** Hands the scores of an assignment in, or ends it. */
    @PostMapping("/assignments/{id}/finish")
    void finish(@AtLeast(value = Role.SCORER, evenBlind = true) OpenStudy open, @PathVariable long id) {
        assignments.finish(open, id);
    }

    /** How far scorers agree, character by character. */
    @GetMapping("/agreement")
    List<ScorerAgreement.CharacterAgreement> agreement(@AtLeast(Role.SCORER) OpenStudy open) {
        return opinions.agreement(open);
    }

    /** What every scorer holds of a cell. */
    @GetMapping("/agreement/cell")
    OpinionService.Dispute dispute(
            @AtLeast(Role.SCORER) OpenStudy open, @RequestParam String row, @RequestParam String character) {
        return opinions.dispute(open, row, character);
    }

    /** Settles a cell that scorers disagree on. */
    @PostMapping("/agreement/settle")
    StudyWriter.Written settle(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody SettleRequest request) {
        return opinions.settle(
                open, request.row(), request.character(), request.text(), request.note(), request.baseRevision());
    }
}
