package org.polyclave.server.study.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.study.OperationService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyWriter;
import org.polyclave.study.change.StudyOperation;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Changes of many objects at once. Scorers may change scores, editors everything. */
@RestController
@RequestMapping("/api/studies/{slug}/operations")
class OperationController {
    /** @param seen revision of the study that the change was decided on; a preview does not need it */
    record OperationRequest(@NotNull StudyOperation operation, long seen) {}

    private final StudyService studies;
    private final OperationService operations;

    OperationController(StudyService studies, OperationService operations) {
        this.studies = studies;
        this.operations = operations;
    }

    @PostMapping("/preview")
    OperationService.ChangePreview preview(
            @PathVariable String slug,
            @Valid @RequestBody OperationRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return operations.preview(open(slug, who, request.operation()), request.operation());
    }

    @PostMapping
    StudyWriter.Written run(
            @PathVariable String slug,
            @Valid @RequestBody OperationRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return operations.run(open(slug, who, request.operation()), request.operation(), request.seen());
    }

    private StudyAccess.Open open(String slug, @Nullable SignedIn who, StudyOperation operation) {
        return studies.open(slug, who, OperationService.changesScoresOnly(operation) ? Role.SCORER : Role.EDITOR);
    }
}
