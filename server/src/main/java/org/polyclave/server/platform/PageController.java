package org.polyclave.server.platform;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Base64;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Serves the single page for every address of the interface, with a fresh nonce for the styles it injects. */
@RestController
@io.swagger.v3.oas.annotations.Hidden
class PageController {
    private static final String NONCE = "__CSP_NONCE__";

    private final SecureRandom random = new SecureRandom();
    private final String page;

    PageController() throws IOException {
        ClassPathResource built = new ClassPathResource("static/index.html");
        page = built.exists()
                ? built.getContentAsString(StandardCharsets.UTF_8)
                : "<!doctype html><title>Polyclave</title><p>The interface was not built.</p>";
    }

    @GetMapping({"/", "/index.html", "/sign-in", "/studies/**", "/import", "/k/**", "/account", "/accounts", "/welcome"
    })
    ResponseEntity<String> page() {
        byte[] bytes = new byte[16];
        random.nextBytes(bytes);
        String nonce = Base64.getEncoder().encodeToString(bytes);
        String policy = "default-src 'self'; script-src 'self'; style-src 'self' 'nonce-" + nonce
                + "'; img-src 'self' data:; font-src 'self'; connect-src 'self'; object-src 'none'; frame-ancestors 'none';"
                + " base-uri 'none'; form-action 'self'";
        return ResponseEntity.ok()
                .contentType(new MediaType(MediaType.TEXT_HTML, StandardCharsets.UTF_8))
                .cacheControl(CacheControl.noStore())
                .header("Content-Security-Policy", policy)
                .header("Permissions-Policy", "camera=(self), microphone=(), geolocation=()")
                .body(page.replace(NONCE, nonce));
    }
}
