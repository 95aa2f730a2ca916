package org.polyclave.server.scoring.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.scoring.AssignmentService;
import org.polyclave.server.study.OpinionService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyWriter;
import org.polyclave.study.agreement.ScorerAgreement;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
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
@RequestMapping("/api/studies/{slug}")
class ScoringController {
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
            long seen) {}

    private final StudyService studies;
    private final AssignmentService assignments;
    private final OpinionService opinions;

    ScoringController(StudyService studies, AssignmentService assignments, OpinionService opinions) {
        this.studies = studies;
        this.assignments = assignments;
        this.opinions = opinions;
    }

    @GetMapping("/assignments")
    List<AssignmentService.Assignment> list(
            @PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return assignments.list(studies.openEvenBlind(slug, who, Role.SCORER));
    }

    @PostMapping("/assignments")
    void give(
            @PathVariable String slug,
            @Valid @RequestBody AssignRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        assignments.give(
                studies.open(slug, who, Role.EDITOR),
                request.scorer(),
                request.rows(),
                request.characters(),
                request.note());
    }

    @GetMapping("/assignments/{id}")
    AssignmentService.Sheet sheet(
            @PathVariable String slug, @PathVariable long id, @AuthenticationPrincipal @Nullable SignedIn who) {
        return assignments.sheet(studies.openEvenBlind(slug, who, Role.SCORER), id);
    }

    @PutMapping("/assignments/{id}/score")
    StudyWriter.Written score(
            @PathVariable String slug,
            @PathVariable long id,
            @Valid @RequestBody OpinionService.Draft draft,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return assignments.score(studies.openEvenBlind(slug, who, Role.SCORER), id, draft);
    }

    @PostMapping("/assignments/{id}/finish")
    void finish(@PathVariable String slug, @PathVariable long id, @AuthenticationPrincipal @Nullable SignedIn who) {
        assignments.finish(studies.openEvenBlind(slug, who, Role.SCORER), id);
    }

    @GetMapping("/agreement")
    List<ScorerAgreement.OfCharacter> agreement(
            @PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return opinions.agreement(studies.open(slug, who, Role.SCORER));
    }

    /** What every scorer holds of a cell. */
    @GetMapping("/agreement/cell")
    OpinionService.Dispute dispute(
            @PathVariable String slug,
            @RequestParam String row,
            @RequestParam String character,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return opinions.dispute(studies.open(slug, who, Role.SCORER), row, character);
    }

    @PostMapping("/agreement/settle")
    StudyWriter.Written settle(
            @PathVariable String slug,
            @Valid @RequestBody SettleRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return opinions.settle(
                studies.open(slug, who, Role.EDITOR),
                request.row(),
                request.character(),
                request.text(),
                request.note(),
                request.seen());
    }
}
