package org.polyclave.server.danger.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.study.ConfirmationService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyStore;
import org.polyclave.study.danger.DangerReport;
import org.polyclave.study.kit.Kit;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What keeps dangers from being ruled out, confirming cells, and what to bring. */
@RestController
@RequestMapping("/api/studies/{slug}")
class DangerController {
    record DangersResponse(long revision, List<DangerReport.Danger> dangers) {}

    record KitResponse(List<String> things) {}

    /** @param source by what the cells were checked */
    record ConfirmRequest(
            @NotNull @Valid List<ConfirmationService.Confirmed> cells,
            @NotNull String source) {}

    record ConfirmedResponse(long revision) {}

    private final StudyService studies;
    private final StudyStore store;
    private final ConfirmationService confirmations;

    DangerController(StudyService studies, StudyStore store, ConfirmationService confirmations) {
        this.studies = studies;
        this.store = store;
        this.confirmations = confirmations;
    }

    @GetMapping("/dangers")
    DangersResponse dangers(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        StudyStore.Snapshot snapshot =
                store.load(studies.open(slug, who, Role.VIEWER).id());
        return new DangersResponse(snapshot.revision(), DangerReport.of(snapshot.compiled()));
    }

    /** What has to be at hand for this study. */
    @GetMapping("/kit")
    KitResponse kit(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return new KitResponse(
                Kit.of(store.load(studies.open(slug, who, Role.VIEWER).id()).study()));
    }

    @PostMapping("/confirmations")
    ConfirmedResponse confirm(
            @PathVariable String slug,
            @Valid @RequestBody ConfirmRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return new ConfirmedResponse(
                confirmations.confirm(studies.open(slug, who, Role.EDITOR), request.cells(), request.source()));
    }
}
