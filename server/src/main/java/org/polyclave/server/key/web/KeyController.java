package org.polyclave.server.key.web;

import jakarta.validation.Valid;
import java.time.Duration;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.key.KeyService;
import org.springframework.http.ResponseEntity;
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
@RequestMapping("/api/v1/studies/{slug}/keys")
class KeyController {
    private static final Duration PATIENCE = Duration.ofSeconds(1);

    private final KeyService keys;

    KeyController(KeyService keys) {
        this.keys = keys;
    }

    /** Generates and proves a key, or finds one that was generated before. */
    @PostMapping
    KeyService.Progressing begin(@AtLeast(Role.VIEWER) OpenStudy open, @Valid @RequestBody KeyService.KeyRequest wish) {
        return keys.begin(open, wish, PATIENCE);
    }

    /** A key, or how far its generation is. */
    @GetMapping("/{id}")
    KeyService.Progressing look(@AtLeast(Role.VIEWER) OpenStudy open, @PathVariable String id) {
        return keys.look(open, id, PATIENCE);
    }

    /** Cancels the generation of a key. */
    @DeleteMapping("/{id}")
    void stop(@AtLeast(Role.VIEWER) OpenStudy open, @PathVariable String id) {
        keys.stop(open, id);
    }

    /** A key as a file, in field terms or in plain words. */
    @GetMapping("/{id}/file")
    ResponseEntity<byte[]> file(
            @AtLeast(Role.VIEWER) OpenStudy open,
            @PathVariable String id,
            @RequestParam String format,
            @RequestParam(defaultValue = "false") boolean plain) {
        return KeyFileResponse.of(open.slug(), keys.file(open, id, format, plain), format);
    }
}
