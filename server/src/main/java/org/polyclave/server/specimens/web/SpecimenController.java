package org.polyclave.server.specimens.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.polyclave.print.label.LabelSheet;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.specimens.SpecimenService;
import org.polyclave.study.model.Specimen;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Specimens, their places and their labels. A specimen without an identifier is new. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/specimens")
class SpecimenController {
    record SpecimenRequest(@NotNull Specimen specimen, long baseRevision) {}

    /** @param specimens ids, in the order in which they are printed */
    record LabelSheetRequest(@NotNull List<String> specimens, boolean collecting, LabelSheet.@NotNull Size size) {}

    private final SpecimenService specimens;

    SpecimenController(SpecimenService specimens) {
        this.specimens = specimens;
    }

    /** Writes a specimen. */
    @PutMapping
    StudyWriter.Written putSpecimen(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody SpecimenRequest request) {
        return specimens.putSpecimen(open, request.specimen(), request.baseRevision());
    }

    /** Specimens for labels and sheets: those of sensitive taxa do not tell their place. */
    @GetMapping("/labels")
    List<SpecimenService.Labelled> labels(@AtLeast(Role.VIEWER) OpenStudy open) {
        return specimens.labels(open);
    }

    /** The same as PDF. */
    @PostMapping(value = "/labels/sheet", produces = MediaType.APPLICATION_PDF_VALUE)
    byte[] labelSheet(@AtLeast(Role.VIEWER) OpenStudy open, @Valid @RequestBody LabelSheetRequest request) {
        return specimens.labelSheet(open, request.specimens(), request.collecting(), request.size());
    }

    /** Where the specimens were found, for the map. */
    @GetMapping("/places")
    List<SpecimenService.Place> places(@AtLeast(Role.VIEWER) OpenStudy open) {
        return specimens.places(open);
    }

    /** Removes a specimen. */
    @DeleteMapping("/{id}")
    StudyWriter.Written removeSpecimen(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @RequestParam long baseRevision) {
        return specimens.remove(open, id, baseRevision);
    }
}
