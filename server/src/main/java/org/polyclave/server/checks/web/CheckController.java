package org.polyclave.server.checks.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.checks.CheckService;
import org.polyclave.server.history.StudyWriter;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Findings of the checks of a study. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/findings")
class CheckController {
    record AcceptFindingRequest(
            @NotNull String key, @NotNull String reason) {}

    record CorrectionRequest(@NotNull String key) {}

    private final CheckService checks;

    CheckController(CheckService checks) {
        this.checks = checks;
    }

    /** What may be slips, gaps or contradictions. */
    @GetMapping
    List<CheckService.FindingView> findings(@AtLeast(Role.VIEWER) OpenStudy open) {
        return checks.findings(open);
    }

    /** Accepts a finding as intended, with a reason. */
    @PutMapping("/accepted")
    void accept(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody AcceptFindingRequest request) {
        checks.accept(open, request.key(), request.reason());
    }

    /** Does what the finding's {@code correction} says. */
    @PostMapping("/corrections")
    StudyWriter.Written correct(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody CorrectionRequest request) {
        return checks.correct(open, request.key());
    }

    /** Reopens a finding that was accepted. */
    @DeleteMapping("/accepted")
    void reopen(@AtLeast(Role.EDITOR) OpenStudy open, @RequestParam String key) {
        checks.reopen(open, key);
    }
}
