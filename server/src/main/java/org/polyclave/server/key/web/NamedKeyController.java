package org.polyclave.server.key.web;

import java.util.List;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.key.NamedKeyService;
import org.polyclave.server.platform.Created;
import org.springframework.http.HttpStatus;
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

/** Keys of a study that have a name. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/named-keys")
class NamedKeyController {
    /** @param job id of the key as it was generated */
    record KeepRequest(String name, String job) {}

    /** @param job id of the key as it was generated */
    record ReplaceRequest(String job) {}

    record NamedKeyUpdate(String name, boolean published) {}

    private final NamedKeyService keys;

    NamedKeyController(NamedKeyService keys) {
        this.keys = keys;
    }

    /** Every key that was kept, and how it stands to the study as it is now. */
    @GetMapping
    List<NamedKeyService.NamedKeyLine> all(@AtLeast(Role.VIEWER) OpenStudy open) {
        return keys.all(open);
    }

    /** A key as it was kept, with what changed since. */
    @GetMapping("/{id}")
    NamedKeyService.NamedKey find(@AtLeast(Role.VIEWER) OpenStudy open, @PathVariable long id) {
        return keys.find(open, id);
    }

    /** A key as it was kept, as a file, in field terms or in plain words. */
    @GetMapping("/{id}/file")
    ResponseEntity<byte[]> file(
            @AtLeast(Role.VIEWER) OpenStudy open,
            @PathVariable long id,
            @RequestParam String format,
            @RequestParam(defaultValue = "false") boolean plain) {
        return KeyFileResponse.of(open.slug(), keys.file(open, id, format, plain), format);
    }

    /** Keeps a key that was generated. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<NamedKeyService.NamedKeyLine> keep(
            @AtLeast(Role.EDITOR) OpenStudy open, @RequestBody KeepRequest request) {
        NamedKeyService.NamedKeyLine kept = keys.keep(open, request.name(), request.job());
        return Created.at(kept, "/api/v1/studies/{slug}/named-keys/{id}", open.slug(), kept.id());
    }

    /** Replaces a key by one that was generated; its name stays. */
    @PutMapping("/{id}/key")
    NamedKeyService.NamedKeyLine replace(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable long id, @RequestBody ReplaceRequest request) {
        return keys.replace(open, id, request.job());
    }

    /** Names a key, and says whether editions hold it. */
    @PutMapping("/{id}")
    NamedKeyService.NamedKeyLine update(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable long id, @RequestBody NamedKeyUpdate request) {
        return keys.update(open, id, request.name(), request.published());
    }

    /** Removes a key from the study; editions that hold it keep it. */
    @DeleteMapping("/{id}")
    void remove(@AtLeast(Role.EDITOR) OpenStudy open, @PathVariable long id) {
        keys.remove(open, id);
    }
}
