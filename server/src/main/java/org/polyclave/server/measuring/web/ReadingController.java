package org.polyclave.server.measuring.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.measuring.MeasuredService;
import org.polyclave.server.measuring.MeasuredView;
import org.polyclave.server.measuring.ReadingService;
import org.polyclave.study.measuring.ReadingOutcome;
import org.polyclave.study.model.Mark;
import org.polyclave.study.model.Reading;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Readings of specimens, and the cells that are made of them. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/readings")
class ReadingController {
    /** @param mark left out where the reading was typed */
    record DraftRequest(
            @NotNull String specimen,
            @NotNull String character,
            @Nullable String item,
            @Nullable String typed,
            @Nullable Mark mark,
            @Nullable String instrument,
            Reading.@Nullable Standing standing,
            @Nullable String note) {
        ReadingService.Draft draft() {
            return new ReadingService.Draft(
                    specimen,
                    character,
                    orEmpty(item),
                    orEmpty(typed),
                    mark,
                    orEmpty(instrument),
                    standing == null ? Reading.Standing.TAKEN : standing,
                    orEmpty(note));
        }

        private static String orEmpty(@Nullable String text) {
            return text == null ? "" : text;
        }
    }

    record ReadingsRequest(@NotNull @Valid List<DraftRequest> readings) {}

    record ReadingCorrectionRequest(@NotNull @Valid DraftRequest reading, long baseRevision) {}

    record AcceptCellsRequest(@NotNull List<MeasuredService.Accepted> cells) {}

    /**
     * What a draft comes to.
     *
     * @param typed with its unit; empty if it was refused
     * @param uncertainty standard uncertainty in the base unit
     * @param refused why it is not a reading; empty if it is one
     */
    record TakenResponse(
            String typed, @Nullable Double value, @Nullable Double uncertainty, String refused) {
        static TakenResponse of(ReadingOutcome taken) {
            if (taken instanceof ReadingOutcome.Refused refused) {
                return new TakenResponse("", null, null, refused.reason());
            }
            ReadingOutcome.Value value = (ReadingOutcome.Value) taken;
            return new TakenResponse(value.typed(), value.value(), value.uncertainty(), "");
        }
    }

    private final ReadingService readings;
    private final MeasuredService measured;

    ReadingController(ReadingService readings, MeasuredService measured) {
        this.readings = readings;
        this.measured = measured;
    }

    /** What the readings of a character come to, row by row. */
    @GetMapping("/of-character/{id}")
    MeasuredView ofCharacter(@AtLeast(Role.VIEWER) OpenStudy open, @PathVariable String id) {
        return measured.ofCharacter(open, id);
    }

    /** The readings of a specimen. */
    @GetMapping("/of-specimen/{id}")
    ReadingService.SpecimenReadings ofSpecimen(@AtLeast(Role.VIEWER) OpenStudy open, @PathVariable String id) {
        return readings.ofSpecimen(open, id);
    }

    /** Where to cut between two rows; nothing (204) if one of them was not measured. */
    @GetMapping("/of-character/{id}/threshold")
    ResponseEntity<MeasuredView.ThresholdView> threshold(
            @AtLeast(Role.VIEWER) OpenStudy open,
            @PathVariable String id,
            @RequestParam String first,
            @RequestParam String second) {
        return measured.threshold(open, id, first, second)
                .map(ResponseEntity::ok)
                .orElseGet(() -> ResponseEntity.noContent().build());
    }

    /** How a size goes with another, row by row. */
    @GetMapping("/of-character/{id}/beside/{other}")
    MeasuredView.BesideView beside(
            @AtLeast(Role.VIEWER) OpenStudy open, @PathVariable String id, @PathVariable String other) {
        return measured.beside(open, id, other);
    }

    /** Every cell for which something was read. */
    @GetMapping("/cells")
    List<MeasuredView.MeasuredCell> cells(@AtLeast(Role.VIEWER) OpenStudy open) {
        return measured.cells(open);
    }

    /** Makes cells of their readings, as one change. */
    @PostMapping("/cells")
    StudyWriter.Written accept(@AtLeast(Role.SCORER) OpenStudy open, @Valid @RequestBody AcceptCellsRequest request) {
        return measured.accept(open, request.cells());
    }

    /** What a reading would come to; nothing is written. */
    @PostMapping("/read")
    TakenResponse read(@AtLeast(Role.SCORER) OpenStudy open, @Valid @RequestBody DraftRequest request) {
        return TakenResponse.of(readings.read(open, request.draft()));
    }

    /** Takes readings as one change: all of them, or none. */
    @PostMapping
    StudyWriter.Written add(@AtLeast(Role.SCORER) OpenStudy open, @Valid @RequestBody ReadingsRequest request) {
        return readings.add(
                open, request.readings().stream().map(DraftRequest::draft).toList());
    }

    /** What a table of readings would add; nothing is written. */
    @PostMapping(path = "/table/preview", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ReadingService.TablePreview previewTable(@AtLeast(Role.SCORER) OpenStudy open, @RequestParam MultipartFile file)
            throws IOException {
        return readings.previewTable(open, file.getBytes(), name(file));
    }

    /** Takes the readings of a table, as one change. */
    @PostMapping(path = "/table", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    StudyWriter.Written addTable(@AtLeast(Role.SCORER) OpenStudy open, @RequestParam MultipartFile file)
            throws IOException {
        return readings.addTable(open, file.getBytes(), name(file));
    }

    private static String name(MultipartFile file) {
        String name = file.getOriginalFilename();
        return name == null ? "readings.csv" : name;
    }

    /** Corrects a reading. */
    @PutMapping("/{id}")
    StudyWriter.Written put(
            @AtLeast(Role.SCORER) OpenStudy open,
            @PathVariable String id,
            @Valid @RequestBody ReadingCorrectionRequest request) {
        return readings.put(open, id, request.reading().draft(), request.baseRevision());
    }

    /** Deletes a reading. */
    @DeleteMapping("/{id}")
    StudyWriter.Written remove(
            @AtLeast(Role.SCORER) OpenStudy open, @PathVariable String id, @RequestParam long baseRevision) {
        return readings.remove(open, id, baseRevision);
    }
}
