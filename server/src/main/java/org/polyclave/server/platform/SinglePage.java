package org.polyclave.server.platform;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Base64;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** A page of the built interface, sent with a fresh nonce for the styles that it holds and injects. */
public final class SinglePage {
    private static final String NONCE = "__CSP_NONCE__";
    private static final String CONTENT = "<!--content-->";
    private static final int NONCE_BYTES = 16;

    private final SecureRandom random = new SecureRandom();
    private final String page;

    /** @param name of the file in what the interface was built to */
    public SinglePage(String name) {
        ClassPathResource built = new ClassPathResource("static/" + name);
        try {
            page = built.exists()
                    ? built.getContentAsString(StandardCharsets.UTF_8)
                    : "<!doctype html><title>Polyclave</title>" + CONTENT + "<p>The interface was not built.</p>";
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** @param content HTML that is there before any script; what people wrote in it is escaped already */
    public ResponseEntity<String> answer(HttpStatus status, String content) {
        byte[] bytes = new byte[NONCE_BYTES];
        random.nextBytes(bytes);
        String nonce = Base64.getEncoder().encodeToString(bytes);
        String policy = "default-src 'self'; script-src 'self'; style-src 'self' 'nonce-" + nonce
                + "'; img-src 'self' data:; font-src 'self'; connect-src 'self'; object-src 'none'; frame-ancestors 'none';"
                + " base-uri 'none'; form-action 'self'";
        return ResponseEntity.status(status)
                .contentType(new MediaType(MediaType.TEXT_HTML, StandardCharsets.UTF_8))
                .cacheControl(CacheControl.noStore())
                .header("Content-Security-Policy", policy)
                .header("Permissions-Policy", "camera=(self), microphone=(), geolocation=()")
                // Last, so that a text that looks like the nonce's place stays a text.
                .body(page.replace(NONCE, nonce).replace(CONTENT, content));
    }
}
