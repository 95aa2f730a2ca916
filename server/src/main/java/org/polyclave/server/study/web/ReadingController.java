package org.polyclave.server.study.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.study.MeasuredService;
import org.polyclave.server.study.MeasuredView;
import org.polyclave.server.study.ReadingService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyWriter;
import org.polyclave.study.measuring.Taken;
import org.polyclave.study.model.Mark;
import org.polyclave.study.model.Reading;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
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
import org.springframework.web.multipart.MultipartFile;

/** Readings of specimens, and the cells that are made of them. */
@RestController
@RequestMapping("/api/studies/{slug}/readings")
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

    record ReadingCorrectionRequest(@NotNull @Valid DraftRequest reading, long seen) {}

    record AcceptRequest(@NotNull List<MeasuredService.Accepted> cells) {}

    /**
     * What a draft comes to.
     *
     * @param typed with its unit; empty if it was refused
     * @param uncertainty standard uncertainty in the base unit
     * @param refused why it is not a reading; empty if it is one
     */
    record TakenResponse(
            String typed, @Nullable Double value, @Nullable Double uncertainty, String refused) {
        static TakenResponse of(Taken taken) {
            if (taken instanceof Taken.Refused refused) {
                return new TakenResponse("", null, null, refused.reason());
            }
            Taken.Value value = (Taken.Value) taken;
            return new TakenResponse(value.typed(), value.value(), value.uncertainty(), "");
        }
    }

    private final StudyService studies;
    private final ReadingService readings;
    private final MeasuredService measured;

    ReadingController(StudyService studies, ReadingService readings, MeasuredService measured) {
        this.studies = studies;
        this.readings = readings;
        this.measured = measured;
    }

    @GetMapping("/of-character/{id}")
    MeasuredView ofCharacter(
            @PathVariable String slug, @PathVariable String id, @AuthenticationPrincipal @Nullable SignedIn who) {
        return measured.ofCharacter(studies.open(slug, who, Role.VIEWER), id);
    }

    @GetMapping("/of-specimen/{id}")
    ReadingService.OfSpecimen ofSpecimen(
            @PathVariable String slug, @PathVariable String id, @AuthenticationPrincipal @Nullable SignedIn who) {
        return readings.ofSpecimen(studies.open(slug, who, Role.VIEWER), id);
    }

    /** Where to cut between two rows; nothing (204) if one of them was not measured. */
    @GetMapping("/of-character/{id}/threshold")
    ResponseEntity<MeasuredView.ThresholdView> threshold(
            @PathVariable String slug,
            @PathVariable String id,
            @RequestParam String first,
            @RequestParam String second,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return measured.threshold(studies.open(slug, who, Role.VIEWER), id, first, second)
                .map(ResponseEntity::ok)
                .orElseGet(() -> ResponseEntity.noContent().build());
    }

    /** How a size goes with another, row by row. */
    @GetMapping("/of-character/{id}/beside/{other}")
    MeasuredView.BesideView beside(
            @PathVariable String slug,
            @PathVariable String id,
            @PathVariable String other,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return measured.beside(studies.open(slug, who, Role.VIEWER), id, other);
    }

    /** Every cell for which something was read. */
    @GetMapping("/cells")
    List<MeasuredView.MeasuredCell> cells(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return measured.cells(studies.open(slug, who, Role.VIEWER));
    }

    /** Makes cells of their readings, as one change. */
    @PostMapping("/cells")
    StudyWriter.Written accept(
            @PathVariable String slug,
            @Valid @RequestBody AcceptRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return measured.accept(studies.open(slug, who, Role.SCORER), request.cells());
    }

    /** What a reading would come to; nothing is written. */
    @PostMapping("/read")
    TakenResponse read(
            @PathVariable String slug,
            @Valid @RequestBody DraftRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return TakenResponse.of(readings.read(studies.open(slug, who, Role.SCORER), request.draft()));
    }

    @PostMapping
    StudyWriter.Written add(
            @PathVariable String slug,
            @Valid @RequestBody ReadingsRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return readings.add(
                open(slug, who),
                request.readings().stream().map(DraftRequest::draft).toList());
    }

    /** What a table of readings would add; nothing is written. */
    @PostMapping(path = "/table/preview", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ReadingService.TablePreview previewTable(
            @PathVariable String slug,
            @RequestParam MultipartFile file,
            @AuthenticationPrincipal @Nullable SignedIn who)
            throws IOException {
        return readings.previewTable(open(slug, who), file.getBytes(), name(file));
    }

    /** Takes the readings of a table, as one change. */
    @PostMapping(path = "/table", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    StudyWriter.Written addTable(
            @PathVariable String slug,
            @RequestParam MultipartFile file,
            @AuthenticationPrincipal @Nullable SignedIn who)
            throws IOException {
        return readings.addTable(open(slug, who), file.getBytes(), name(file));
    }

    private static String name(MultipartFile file) {
        String name = file.getOriginalFilename();
        return name == null ? "readings.csv" : name;
    }

    @PutMapping("/{id}")
    StudyWriter.Written put(
            @PathVariable String slug,
            @PathVariable String id,
            @Valid @RequestBody ReadingCorrectionRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return readings.put(open(slug, who), id, request.reading().draft(), request.seen());
    }

    @DeleteMapping("/{id}")
    StudyWriter.Written remove(
            @PathVariable String slug,
            @PathVariable String id,
            @RequestParam long seen,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return readings.remove(open(slug, who), id, seen);
    }

    private StudyAccess.Open open(String slug, @Nullable SignedIn who) {
        return studies.open(slug, who, Role.SCORER);
    }
}
