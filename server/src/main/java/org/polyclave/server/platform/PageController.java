package org.polyclave.server.platform;

import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Serves the single page of the workspace for every address of it. */
@RestController
@io.swagger.v3.oas.annotations.Hidden
class PageController {
    private final SinglePage page = new SinglePage("index.html");

    @GetMapping({"/", "/index.html", "/sign-in", "/studies/**", "/import", "/account", "/accounts", "/welcome", "/help"
    })
    ResponseEntity<String> page() {
        return page.answer(HttpStatus.OK, "");
    }
}
