package org.polyclave.server.platform;

import org.springframework.http.ResponseEntity;
import org.springframework.web.util.UriComponentsBuilder;

/** Answers to requests that made something: 201 with the address of what was made. */
public final class Created {
    private Created() {}

    /** @param address with a place for each of the identifiers, which are encoded */
    public static <T> ResponseEntity<T> at(T body, String address, Object... identifiers) {
        return ResponseEntity.created(UriComponentsBuilder.fromPath(address)
                        .encode()
                        .buildAndExpand(identifiers)
                        .toUri())
                .body(body);
    }
}
