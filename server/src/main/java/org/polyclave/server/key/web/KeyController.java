package org.polyclave.server.key.web;

import jakarta.validation.Valid;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.key.KeyService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/**
 * Keys of a study. A request waits a moment for its key, so that small ones come at once; a larger one is asked after
 * again, tells how far it is, and can be stopped.
 */
@RestController
@RequestMapping("/api/studies/{slug}/keys")
class KeyController {
    private static final Duration PATIENCE = Duration.ofSeconds(1);

    private final StudyService studies;
    private final KeyService keys;

    KeyController(StudyService studies, KeyService keys) {
        this.studies = studies;
        this.keys = keys;
    }

    @PostMapping
    KeyService.Progressing begin(
            @PathVariable String slug,
            @Valid @RequestBody KeyService.Wish wish,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return keys.begin(open(slug, who), wish, PATIENCE);
    }

    @GetMapping("/{id}")
    KeyService.Progressing look(
            @PathVariable String slug, @PathVariable String id, @AuthenticationPrincipal @Nullable SignedIn who) {
        return keys.look(open(slug, who), id, PATIENCE);
    }

    @DeleteMapping("/{id}")
    void stop(@PathVariable String slug, @PathVariable String id, @AuthenticationPrincipal @Nullable SignedIn who) {
        keys.stop(open(slug, who), id);
    }

    @GetMapping("/{id}/file")
    ResponseEntity<byte[]> file(
            @PathVariable String slug,
            @PathVariable String id,
            @RequestParam String format,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        String text = keys.file(open(slug, who), id, format);
        String ending = switch (format) {
            case "markdown" -> "md";
            case "text" -> "txt";
            default -> format;
        };
        String type = switch (format) {
            case "html" -> "text/html";
            case "json" -> "application/json";
            default -> "text/plain";
        };
        return ResponseEntity.ok()
                .contentType(new MediaType(MediaType.parseMediaType(type), StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(slug + "-key." + ending)
                                .build()
                                .toString())
                .body(text.getBytes(StandardCharsets.UTF_8));
    }

    private StudyAccess.Open open(String slug, @Nullable SignedIn who) {
        return studies.open(slug, who, Role.VIEWER);
    }
}
