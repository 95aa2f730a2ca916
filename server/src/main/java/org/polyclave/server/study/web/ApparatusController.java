package org.polyclave.server.study.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.print.label.LabelSheet;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.study.ApparatusService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyWriter;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.Specimen;
import org.springframework.http.MediaType;
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

/** Glossary, references, claims and specimens. An object without an identifier is new. */
@RestController
@RequestMapping("/api/studies/{slug}")
class ApparatusController {
    record TermRequest(@NotNull GlossaryTerm term, long seen) {}

    record ReferenceRequest(@NotNull Reference reference, long seen) {}

    record ClaimRequest(@NotNull Claim claim, long seen) {}

    record SpecimenRequest(@NotNull Specimen specimen, long seen) {}

    private final StudyService studies;
    private final ApparatusService apparatus;

    ApparatusController(StudyService studies, ApparatusService apparatus) {
        this.studies = studies;
        this.apparatus = apparatus;
    }

    @PutMapping("/terms")
    StudyWriter.Written putTerm(
            @PathVariable String slug,
            @Valid @RequestBody TermRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apparatus.putTerm(open(slug, who), request.term(), request.seen());
    }

    @PutMapping("/references")
    StudyWriter.Written putReference(
            @PathVariable String slug,
            @Valid @RequestBody ReferenceRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apparatus.putReference(open(slug, who), request.reference(), request.seen());
    }

    @PutMapping("/claims")
    StudyWriter.Written putClaim(
            @PathVariable String slug,
            @Valid @RequestBody ClaimRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apparatus.putClaim(open(slug, who), request.claim(), request.seen());
    }

    @PutMapping("/specimens")
    StudyWriter.Written putSpecimen(
            @PathVariable String slug,
            @Valid @RequestBody SpecimenRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apparatus.putSpecimen(open(slug, who), request.specimen(), request.seen());
    }

    /** Specimens for labels and sheets: those of sensitive taxa do not tell their place. */
    @GetMapping("/specimens/labels")
    List<ApparatusService.Labelled> labels(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return apparatus.labels(studies.open(slug, who, Role.VIEWER));
    }

    /** @param specimens ids, in the order in which they are printed */
    record LabelSheetRequest(@NotNull List<String> specimens, boolean collecting, LabelSheet.@NotNull Size size) {}

    /** The same as PDF. */
    @PostMapping(value = "/specimens/labels/sheet", produces = MediaType.APPLICATION_PDF_VALUE)
    byte[] labelSheet(
            @PathVariable String slug,
            @Valid @RequestBody LabelSheetRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apparatus.labelSheet(
                studies.open(slug, who, Role.VIEWER), request.specimens(), request.collecting(), request.size());
    }

    /** Where the specimens were found, for the map. */
    @GetMapping("/specimens/places")
    List<ApparatusService.Place> places(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return apparatus.places(studies.open(slug, who, Role.VIEWER));
    }

    @DeleteMapping("/{kind:term|reference|claim|picture|specimen}s/{id}")
    StudyWriter.Written remove(
            @PathVariable String slug,
            @PathVariable String kind,
            @PathVariable String id,
            @RequestParam long seen,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apparatus.remove(open(slug, who), kind, id, seen);
    }

    private StudyAccess.Open open(String slug, @Nullable SignedIn who) {
        return studies.open(slug, who, Role.EDITOR);
    }
}
