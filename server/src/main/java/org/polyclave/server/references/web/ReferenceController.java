package org.polyclave.server.references.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.references.ReferenceService;
import org.polyclave.server.store.StudyObject;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Reference;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Glossary, references and claims. An object without an identifier is new. */
@RestController
@RequestMapping("/api/v1/studies/{slug}")
class ReferenceController {
    record TermRequest(@NotNull GlossaryTerm term, long baseRevision) {}

    record ReferenceRequest(@NotNull Reference reference, long baseRevision) {}

    record ClaimRequest(@NotNull Claim claim, long baseRevision) {}

    private final ReferenceService references;

    ReferenceController(ReferenceService references) {
        this.references = references;
    }

    /** Writes a term of the glossary. */
    @PutMapping("/terms")
    StudyWriter.Written putTerm(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody TermRequest request) {
        return references.putTerm(open, request.term(), request.baseRevision());
    }

    /** Writes a reference. */
    @PutMapping("/references")
    StudyWriter.Written putReference(
            @AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody ReferenceRequest request) {
        return references.putReference(open, request.reference(), request.baseRevision());
    }

    /** Writes a claim. */
    @PutMapping("/claims")
    StudyWriter.Written putClaim(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody ClaimRequest request) {
        return references.putClaim(open, request.claim(), request.baseRevision());
    }

    /** Removes a term of the glossary. */
    @DeleteMapping("/terms/{id}")
    StudyWriter.Written removeTerm(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @RequestParam long baseRevision) {
        return references.remove(open, StudyObject.Kind.TERM, id, baseRevision);
    }

    /** Removes a reference. */
    @DeleteMapping("/references/{id}")
    StudyWriter.Written removeReference(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @RequestParam long baseRevision) {
        return references.remove(open, StudyObject.Kind.REFERENCE, id, baseRevision);
    }

    /** Removes a claim. */
    @DeleteMapping("/claims/{id}")
    StudyWriter.Written removeClaim(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @RequestParam long baseRevision) {
        return references.remove(open, StudyObject.Kind.CLAIM, id, baseRevision);
    }
}
