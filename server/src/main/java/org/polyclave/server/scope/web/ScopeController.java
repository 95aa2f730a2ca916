package org.polyclave.server.scope.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.scope.ScopeService;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.StudyScope;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The scope of a study, and the taxa near but outside. */
@RestController
@RequestMapping("/api/v1/studies/{slug}")
class ScopeController {
    record ScopeRequest(@NotNull String title, @NotNull StudyScope scope, long baseRevision) {}

    record OutsideRequest(@NotNull List<OutsideTaxon> taxa, long baseRevision) {}

    private final ScopeService scopes;

    ScopeController(ScopeService scopes) {
        this.scopes = scopes;
    }

    /** Replaces the title and the scope. */
    @PutMapping("/scope")
    StudyWriter.Written putScope(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody ScopeRequest request) {
        return scopes.putScope(open, request.title(), request.scope(), request.baseRevision());
    }

    /** Replaces the taxa near but outside. */
    @PutMapping("/outside")
    StudyWriter.Written putOutside(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody OutsideRequest request) {
        return scopes.putOutside(open, request.taxa(), request.baseRevision());
    }
}
