package org.polyclave.server.picture.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import org.polyclave.files.picture.PictureFile;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.picture.PictureResponse;
import org.polyclave.server.picture.PictureService;
import org.polyclave.server.platform.Created;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.PictureStore;
import org.polyclave.study.model.Picture;
import org.springframework.http.HttpStatus;
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
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Pictures of a study: upload, what is said about them, and what is in them. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/pictures")
class PictureController {
    /** What is said about a picture; the rest of {@code picture} is not changed by it. */
    record PictureRequest(@NotNull Picture picture, long baseRevision) {}

    private final PictureService studyPictures;
    private final PictureStore pictures;

    PictureController(PictureService studyPictures, PictureStore pictures) {
        this.studyPictures = studyPictures;
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
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<StudyWriter.Written> add(
            @AtLeast(Role.EDITOR) OpenStudy open,
            @RequestParam MultipartFile file,
            @RequestParam String shows,
            @RequestParam(defaultValue = "") String credit,
            @RequestParam(defaultValue = "") String licence,
            @RequestParam(defaultValue = "") String row,
            @RequestParam(defaultValue = "") String specimen,
            @RequestParam(defaultValue = "false") boolean keepPlace)
            throws IOException {
        PictureStore.Cleaned cleaned = PictureStore.clean(file.getBytes());
        PictureFile kept = cleaned.file();
        String place = keepPlace && kept.place() != null ? kept.place() : "";
        StudyWriter.Written written = studyPictures.addPicture(
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
        return Created.at(written, "/api/v1/studies/{slug}/pictures/{content}", open.slug(), cleaned.content());
    }

    /** Replaces what is said about a picture. */
    @PutMapping
    StudyWriter.Written put(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody PictureRequest request) {
        return studyPictures.putPicture(open, request.picture(), request.baseRevision());
    }

    /**
     * What is in a picture.
     *
     * @param content SHA-256 of what is in it
     */
    @GetMapping("/{content}")
    ResponseEntity<byte[]> content(
            @AtLeast(value = Role.VIEWER, evenBlind = true) OpenStudy open,
            @PathVariable String content,
            @RequestParam(defaultValue = "false") boolean small) {
        return PictureResponse.of(pictures.find(open.id(), content, small).orElseThrow(Problems::notFound), false);
    }

    /** Removes a picture from the study. */
    @DeleteMapping("/{id}")
    StudyWriter.Written remove(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @RequestParam long baseRevision) {
        return studyPictures.remove(open, id, baseRevision);
    }
}
