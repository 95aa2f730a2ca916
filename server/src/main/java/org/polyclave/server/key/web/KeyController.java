package org.polyclave.server.key.web;

import java.nio.charset.StandardCharsets;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.formats.key.KeyView;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.key.KeyService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyStore;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Keys of a study. The wish is in the address, so that a key can be linked to. */
@RestController
@RequestMapping("/api/studies/{slug}/key")
class KeyController {
    private final StudyService studies;
    private final StudyStore store;
    private final KeyService keys;

    KeyController(StudyService studies, StudyStore store, KeyService keys) {
        this.studies = studies;
        this.store = store;
        this.keys = keys;
    }

    @GetMapping
    KeyView key(
            @PathVariable String slug,
            @RequestParam(defaultValue = "CAUTIOUS") KeyObjective objective,
            @RequestParam(defaultValue = "true") boolean evenWeights,
            @RequestParam(defaultValue = "") Set<Integer> months,
            @RequestParam(defaultValue = "") Set<String> organs,
            @RequestParam(defaultValue = "") Set<String> methods,
            @RequestParam(defaultValue = "") Set<String> forbidden,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return make(slug, new KeyService.Wish(objective, evenWeights, months, organs, methods, forbidden), who)
                .view();
    }

    @GetMapping("/file")
    ResponseEntity<byte[]> file(
            @PathVariable String slug,
            @RequestParam String format,
            @RequestParam(defaultValue = "CAUTIOUS") KeyObjective objective,
            @RequestParam(defaultValue = "true") boolean evenWeights,
            @RequestParam(defaultValue = "") Set<Integer> months,
            @RequestParam(defaultValue = "") Set<String> organs,
            @RequestParam(defaultValue = "") Set<String> methods,
            @RequestParam(defaultValue = "") Set<String> forbidden,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        KeyService.Wish wish = new KeyService.Wish(objective, evenWeights, months, organs, methods, forbidden);
        String text = make(slug, wish, who).render(format);
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

    private KeyService.Made make(String slug, KeyService.Wish wish, @Nullable SignedIn who) {
        StudyAccess.Open open = studies.open(slug, who, Role.VIEWER);
        return keys.make(store.load(open.id(), open.slug()).compiled(), wish);
    }
}
