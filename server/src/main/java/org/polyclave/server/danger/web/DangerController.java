package org.polyclave.server.danger.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.danger.ConfirmationService;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.danger.DangerReport;
import org.polyclave.study.kit.Kit;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What keeps dangers from being ruled out, confirming cells, and what to bring. */
@RestController
@RequestMapping("/api/v1/studies/{slug}")
class DangerController {
    record DangersResponse(long revision, List<DangerReport.Danger> dangers) {}

    record KitResponse(List<String> things) {}

    /** @param source by what the cells were checked */
    record ConfirmRequest(
            @NotNull @Valid List<ConfirmationService.Confirmed> cells,
            @NotNull String source) {}

    record ConfirmedResponse(long revision) {}

    private final StudyStore store;
    private final ConfirmationService confirmations;

    DangerController(StudyStore store, ConfirmationService confirmations) {
        this.store = store;
        this.confirmations = confirmations;
    }

    /** What each dangerous row lacks before readers can rule it out. */
    @GetMapping("/dangers")
    DangersResponse dangers(@AtLeast(Role.VIEWER) OpenStudy open) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        return new DangersResponse(snapshot.revision(), DangerReport.of(snapshot.compiled()));
    }

    /** What has to be at hand for this study. */
    @GetMapping("/kit")
    KitResponse kit(@AtLeast(Role.VIEWER) OpenStudy open) {
        return new KitResponse(Kit.of(store.load(open.id()).study()));
    }

    /** Confirms cells that were checked by a source, so that they may count against a danger. */
    @PostMapping("/confirmations")
    ConfirmedResponse confirm(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody ConfirmRequest request) {
        return new ConfirmedResponse(confirmations.confirm(open, request.cells(), request.source()));
    }
}
