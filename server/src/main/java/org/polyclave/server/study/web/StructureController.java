package org.polyclave.server.study.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StructureService;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyWriter;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/**
 * Editing of what a study is made of. {@code seen} is the revision of the object that the editor saw, from the study's
 * {@code revisions}.
 */
@RestController
@RequestMapping("/api/studies/{slug}")
class StructureController {
    record ScopeRequest(@NotNull String title, @NotNull StudyScope scope, long seen) {}

    record OutsideRequest(@NotNull List<OutsideTaxon> taxa, long seen) {}

    record RowRequest(@NotNull StudyRow row, long seen) {}

    record CharacterRequest(@NotNull StudyCharacter character, long seen) {}

    /** @param before what it is to come before; absent: behind all others */
    record MoveRequest(@Nullable String parent, @Nullable String before, long seen) {}

    private final StudyService studies;
    private final StructureService structure;

    StructureController(StudyService studies, StructureService structure) {
        this.studies = studies;
        this.structure = structure;
    }

    @PutMapping("/scope")
    StudyWriter.Written putScope(
            @PathVariable String slug,
            @Valid @RequestBody ScopeRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return structure.putScope(open(slug, who), request.title(), request.scope(), request.seen());
    }

    @PutMapping("/outside")
    StudyWriter.Written putOutside(
            @PathVariable String slug,
            @Valid @RequestBody OutsideRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return structure.putOutside(open(slug, who), request.taxa(), request.seen());
    }

    @PostMapping("/rows")
    StudyWriter.Written addRow(
            @PathVariable String slug,
            @Valid @RequestBody RowRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return structure.addRow(open(slug, who), request.row());
    }

    @PutMapping("/rows/{id}")
    StudyWriter.Written putRow(
            @PathVariable String slug,
            @PathVariable String id,
            @Valid @RequestBody RowRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return structure.putRow(open(slug, who), request.row().withId(id), request.seen());
    }

    /** By somebody else than who lowered it. */
    @PostMapping("/rows/{id}/hazard-confirmation")
    StudyWriter.Written confirmHazard(
            @PathVariable String slug,
            @PathVariable String id,
            @RequestParam long seen,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return structure.confirmHazard(open(slug, who), id, seen);
    }

    @PostMapping("/rows/{id}/move")
    StudyWriter.Written moveRow(
            @PathVariable String slug,
            @PathVariable String id,
            @Valid @RequestBody MoveRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return structure.moveRow(open(slug, who), id, request.parent(), request.before(), request.seen());
    }

    @DeleteMapping("/rows/{id}")
    StudyWriter.Written removeRow(
            @PathVariable String slug,
            @PathVariable String id,
            @RequestParam long seen,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return structure.removeRow(open(slug, who), id, seen);
    }

    @PostMapping("/characters")
    StudyWriter.Written addCharacter(
            @PathVariable String slug,
            @Valid @RequestBody CharacterRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return structure.addCharacter(open(slug, who), request.character());
    }

    @PutMapping("/characters/{id}")
    StudyWriter.Written putCharacter(
            @PathVariable String slug,
            @PathVariable String id,
            @Valid @RequestBody CharacterRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return structure.putCharacter(open(slug, who), request.character().withId(id), request.seen());
    }

    @PostMapping("/characters/{id}/move")
    StudyWriter.Written moveCharacter(
            @PathVariable String slug,
            @PathVariable String id,
            @Valid @RequestBody MoveRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        if (request.parent() != null) {
            throw Problems.badRequest("parent", "Characters have no parent.");
        }
        return structure.moveCharacter(open(slug, who), id, request.before(), request.seen());
    }

    @DeleteMapping("/characters/{id}")
    StudyWriter.Written removeCharacter(
            @PathVariable String slug,
            @PathVariable String id,
            @RequestParam long seen,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return structure.removeCharacter(open(slug, who), id, seen);
    }

    private StudyAccess.Open open(String slug, @Nullable SignedIn who) {
        return studies.open(slug, who, Role.EDITOR);
    }
}
