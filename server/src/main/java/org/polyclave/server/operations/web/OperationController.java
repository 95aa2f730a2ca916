package org.polyclave.server.operations.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.ChangePreview;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.operations.OperationService;
import org.polyclave.study.change.StudyOperation;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Changes of many objects at once. Scorers may change scores, editors everything. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/operations")
class OperationController {
    /** @param baseRevision revision of the study that the change was decided on; a preview does not need it */
    record OperationRequest(@NotNull StudyOperation operation, long baseRevision) {}

    private final OperationService operations;

    OperationController(OperationService operations) {
        this.operations = operations;
    }

    /** What an operation would change; nothing is changed. */
    @PostMapping("/preview")
    ChangePreview preview(@AtLeast(Role.SCORER) OpenStudy open, @Valid @RequestBody OperationRequest request) {
        return operations.preview(allowed(open, request.operation()), request.operation());
    }

    /** Changes many objects at once. */
    @PostMapping
    StudyWriter.Written run(@AtLeast(Role.SCORER) OpenStudy open, @Valid @RequestBody OperationRequest request) {
        return operations.run(allowed(open, request.operation()), request.operation(), request.baseRevision());
    }

    private static OpenStudy allowed(OpenStudy open, StudyOperation operation) {
        return open.require(OperationService.changesScoresOnly(operation) ? Role.SCORER : Role.EDITOR);
    }
}
