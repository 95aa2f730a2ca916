package org.polyclave.server.taxa.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.Created;
import org.polyclave.server.taxa.TaxonService;
import org.polyclave.study.model.StudyRow;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/**
 * Editing taxa, and their sexes and stages. {@code baseRevision} is the revision of the object that the editor saw, from the study's
 * {@code revisions}.
 */
@RestController
@RequestMapping("/api/v1/studies/{slug}/rows")
class TaxonController {
    record RowRequest(@NotNull StudyRow row, long baseRevision) {}

    /** @param before what it is to come before; absent: behind all others */
    record MoveRequest(@Nullable String parent, @Nullable String before, long baseRevision) {}

    private final TaxonService taxa;

    TaxonController(TaxonService taxa) {
        this.taxa = taxa;
    }

    /** Adds a taxon, or a sex or stage, behind the others of its parent. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<StudyWriter.Written> addRow(
            @AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody RowRequest request) {
        StudyWriter.Written written = taxa.addRow(open, request.row());
        return Created.at(written, "/api/v1/studies/{slug}/rows/{id}", open.slug(), written.id());
    }

    /** Replaces a row. */
    @PutMapping("/{id}")
    StudyWriter.Written putRow(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @Valid @RequestBody RowRequest request) {
        return taxa.putRow(open, request.row().withId(id), request.baseRevision());
    }

    /** By somebody else than who lowered it. */
    @PostMapping("/{id}/hazard-confirmation")
    StudyWriter.Written confirmHazard(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @RequestParam long baseRevision) {
        return taxa.confirmHazard(open, id, baseRevision);
    }

    /** Moves a row, with all that belongs to it, under a parent. */
    @PostMapping("/{id}/move")
    StudyWriter.Written moveRow(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @Valid @RequestBody MoveRequest request) {
        return taxa.moveRow(open, id, request.parent(), request.before(), request.baseRevision());
    }

    /** Removes a row with its sexes and stages and their scores; its subtaxa move up. */
    @DeleteMapping("/{id}")
    StudyWriter.Written removeRow(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @RequestParam long baseRevision) {
        return taxa.removeRow(open, id, baseRevision);
    }
}
