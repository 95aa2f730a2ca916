package org.polyclave.server.edition.web;

import io.swagger.v3.oas.annotations.Parameter;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.study.StudyFormat;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.edition.EditionDocument;
import org.polyclave.server.edition.EditionService;
import org.polyclave.server.edition.EditionShelf;
import org.polyclave.server.history.ChangePreview;
import org.polyclave.server.picture.PictureResponse;
import org.polyclave.server.platform.Created;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.wording.taxon.Description;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Publishing for members, reading for everybody. */
@RestController
class EditionController {
    /** @param words by id of the dangerous row, what readers are told */
    record PublishRequest(List<String> authors, Map<String, String> words) {}

    record PublishedResponse(int number) {}

    /** @param html a fragment that needs no script */
    record CoverResponse(String html) {}

    record ChangesResponse(@Nullable ChangePreview changes) {}

    record WithdrawRequest(String reason) {}

    /** @param format version of the format in which documents can be asked for */
    record NewestResponse(int number, int format, List<EditionShelf.EditionLine> editions) {}

    private final EditionService editions;
    private final EditionShelf shelf;

    EditionController(EditionService editions, EditionShelf shelf) {
        this.editions = editions;
        this.shelf = shelf;
    }

    /** What stands between the study and its next edition. */
    @GetMapping("/api/v1/studies/{slug}/gate")
    EditionService.Gate gate(@AtLeast(Role.VIEWER) OpenStudy open) {
        return editions.gate(open);
    }

    /** Publishes the next edition, if the gate allows it. */
    @PostMapping("/api/v1/studies/{slug}/editions")
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<PublishedResponse> publish(
            @AtLeast(Role.EDITOR) OpenStudy open, @RequestBody PublishRequest request) {
        int number = editions.publish(open, request.authors(), request.words());
        return Created.at(new PublishedResponse(number), "/api/v1/editions/{slug}/{number}", open.slug(), number);
    }

    /** What readers would see first, if the study were published with these authors and words. */
    @PostMapping("/api/v1/studies/{slug}/cover")
    CoverResponse cover(@AtLeast(Role.VIEWER) OpenStudy open, @RequestBody PublishRequest request) {
        return new CoverResponse(editions.cover(open, request.authors(), request.words()));
    }

    /** What changed since the newest edition; empty if there is none. */
    @GetMapping("/api/v1/studies/{slug}/editions/changes")
    ChangesResponse changes(@AtLeast(Role.VIEWER) OpenStudy open) {
        return new ChangesResponse(editions.changesSinceNewest(open).orElse(null));
    }

    /** Withdraws an edition; it can still be read, with the reason. */
    @PostMapping("/api/v1/studies/{slug}/editions/{number}/withdraw")
    void withdraw(@AtLeast(Role.OWNER) OpenStudy open, @PathVariable int number, @RequestBody WithdrawRequest request) {
        editions.withdraw(open, number, request.reason());
    }

    /** The newest number and every edition with its status; never cached, so that a withdrawal is seen. */
    @GetMapping("/api/v1/editions/{slug}")
    ResponseEntity<NewestResponse> newest(@PathVariable String slug) {
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noCache())
                .body(new NewestResponse(shelf.newest(slug), StudyFormat.VERSION, shelf.list(slug)));
    }

    /** A picture of an edition, named by what is in it. */
    @GetMapping("/api/v1/editions/{slug}/{number}/pictures/{content}")
    ResponseEntity<byte[]> picture(
            @PathVariable String slug,
            @PathVariable int number,
            @PathVariable String content,
            @RequestParam(defaultValue = "false") boolean small) {
        return PictureResponse.of(shelf.picture(slug, number, content, small).orElseThrow(Problems::notFound), true);
    }

    /** What a taxon of an edition shows, in words. */
    @GetMapping("/api/v1/editions/{slug}/{number}/taxa/{row}")
    List<Description.Line> description(@PathVariable String slug, @PathVariable int number, @PathVariable String row) {
        CompiledStudy compiled = shelf.compiled(slug, number);
        return Description.of(compiled, compiled.study().row(row).orElseThrow(Problems::notFound));
    }

    /**
     * The document of an edition, byte for byte as it was published; or, if a format is asked for, in the present one. The
     * format stands in the address so that no cache gives an old one to a new program.
     *
     * @param format version of the format, as the list of editions names it
     */
    @GetMapping(path = "/api/v1/editions/{slug}/{number}", produces = MediaType.APPLICATION_JSON_VALUE)
    @io.swagger.v3.oas.annotations.responses.ApiResponse(
            responseCode = "200",
            content =
                    @io.swagger.v3.oas.annotations.media.Content(
                            schema =
                                    @io.swagger.v3.oas.annotations.media.Schema(
                                            implementation = EditionDocument.class)))
    ResponseEntity<byte[]> document(
            @PathVariable String slug,
            @PathVariable int number,
            @RequestParam(required = false) @Nullable Integer format,
            @RequestHeader(name = HttpHeaders.ACCEPT_ENCODING, defaultValue = "") @Parameter(hidden = true)
                    String encodings) {
        String hash = shelf.hash(slug, number);
        ResponseEntity.BodyBuilder answer = ResponseEntity.ok()
                .varyBy(HttpHeaders.ACCEPT_ENCODING)
                // Weak, because what goes over a slow line is compressed, and a strong one would forbid it.
                .eTag("W/\"" + hash + (format == null ? "" : "-" + StudyFormat.VERSION) + "\"")
                .cacheControl(
                        CacheControl.maxAge(Duration.ofDays(365)).cachePublic().immutable());
        if (format == null) {
            return answer.body(shelf.asPublished(slug, number));
        }
        byte[] packed = shelf.packed(slug, number);
        return encodings.contains("gzip")
                ? answer.header(HttpHeaders.CONTENT_ENCODING, "gzip").body(packed)
                : answer.body(EditionShelf.unpacked(packed));
    }
}
