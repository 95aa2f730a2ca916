package org.polyclave.server.picture;

import java.time.Duration;
import org.polyclave.server.store.PictureStore;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** Sends what is in a picture. It is named by its content, so it never changes. */
public final class PictureResponse {
    private PictureResponse() {}

    /** @param shared whether anybody may keep a copy on the way: true for editions only */
    public static ResponseEntity<byte[]> of(PictureStore.Content content, boolean shared) {
        CacheControl kept = CacheControl.maxAge(Duration.ofDays(365)).immutable();
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(content.mediaType()))
                // A drawing opened by itself is a page; it may do nothing there.
                .header("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
                .cacheControl(shared ? kept.cachePublic() : kept.cachePrivate())
                .body(content.bytes());
    }
}
