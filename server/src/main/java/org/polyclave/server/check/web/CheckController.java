package org.polyclave.server.check.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.check.CheckService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyWriter;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Findings of the checks of a study. */
@RestController
@RequestMapping("/api/studies/{slug}/findings")
class CheckController {
    record AcceptRequest(@NotNull String key, @NotNull String reason) {}

    record CorrectionRequest(@NotNull String key) {}

    private final StudyService studies;
    private final CheckService checks;

    CheckController(StudyService studies, CheckService checks) {
        this.studies = studies;
        this.checks = checks;
    }

    @GetMapping
    List<CheckService.FindingView> findings(
            @PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return checks.findings(studies.open(slug, who, Role.VIEWER));
    }

    @PutMapping("/accepted")
    void accept(
            @PathVariable String slug,
            @Valid @RequestBody AcceptRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        checks.accept(studies.open(slug, who, Role.EDITOR), request.key(), request.reason());
    }

    /** Does what the finding's {@code correction} says. */
    @PostMapping("/corrections")
    StudyWriter.Written correct(
            @PathVariable String slug,
            @Valid @RequestBody CorrectionRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return checks.correct(studies.open(slug, who, Role.EDITOR), request.key());
    }

    @DeleteMapping("/accepted")
    void reopen(@PathVariable String slug, @RequestParam String key, @AuthenticationPrincipal @Nullable SignedIn who) {
        checks.reopen(studies.open(slug, who, Role.EDITOR), key);
    }
}
