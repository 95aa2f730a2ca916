package org.polyclave.server.study.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.picture.PictureFile;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.picture.PictureResponse;
import org.polyclave.server.picture.PictureStore;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.ApparatusService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyWriter;
import org.polyclave.study.model.Picture;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Pictures of a study: upload, what is said about them, and what is in them. */
@RestController
@RequestMapping("/api/studies/{slug}/pictures")
class PictureController {
    /** What is said about a picture; the rest of {@code picture} is not changed by it. */
    record PictureRequest(@NotNull Picture picture, long seen) {}

    private final StudyService studies;
    private final ApparatusService apparatus;
    private final PictureStore pictures;

    PictureController(StudyService studies, ApparatusService apparatus, PictureStore pictures) {
        this.studies = studies;
        this.apparatus = apparatus;
        this.pictures = pictures;
    }

    /**
     * Adds a picture: PNG, JPEG, WebP or SVG of at most 20 MB.
     *
     * @param shows what it shows, for those who cannot see it
     * @param specimen that it shows, to be measured on it
     * @param keepPlace whether the coordinates in the file are kept
     */
    @PostMapping(consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    StudyWriter.Written add(
            @PathVariable String slug,
            @RequestParam MultipartFile file,
            @RequestParam String shows,
            @RequestParam(defaultValue = "") String credit,
            @RequestParam(defaultValue = "") String licence,
            @RequestParam(defaultValue = "") String row,
            @RequestParam(defaultValue = "") String specimen,
            @RequestParam(defaultValue = "false") boolean keepPlace,
            @AuthenticationPrincipal @Nullable SignedIn who)
            throws IOException {
        var open = studies.open(slug, who, Role.EDITOR);
        PictureStore.Cleaned cleaned = PictureStore.clean(file.getBytes());
        PictureFile kept = cleaned.file();
        String place = keepPlace && kept.place() != null ? kept.place() : "";
        return apparatus.addPicture(
                open,
                cleaned,
                new Picture(
                        "",
                        cleaned.content(),
                        kept.mediaType(),
                        kept.width(),
                        kept.height(),
                        shows.strip(),
                        credit.strip(),
                        licence.strip(),
                        row,
                        place,
                        specimen,
                        null,
                        ""));
    }

    @PutMapping
    StudyWriter.Written put(
            @PathVariable String slug,
            @Valid @RequestBody PictureRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apparatus.putPicture(studies.open(slug, who, Role.EDITOR), request.picture(), request.seen());
    }

    /** @param content SHA-256 of what is in it */
    @GetMapping("/{content}")
    ResponseEntity<byte[]> content(
            @PathVariable String slug,
            @PathVariable String content,
            @RequestParam(defaultValue = "false") boolean small,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return PictureResponse.of(
                pictures.find(studies.openEvenBlind(slug, who, Role.VIEWER).id(), content, small)
                        .orElseThrow(Problems::notFound),
                false);
    }
}
