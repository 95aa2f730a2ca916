package org.polyclave.server.key.web;

import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** A key as a file to keep. */
final class KeyFileResponse {
    private KeyFileResponse() {}

    static ResponseEntity<byte[]> of(String slug, String text, String format) {
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
}
