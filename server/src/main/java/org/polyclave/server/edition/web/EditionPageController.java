package org.polyclave.server.edition.web;

import org.jspecify.annotations.Nullable;
import org.polyclave.files.study.StudyFormat;
import org.polyclave.server.edition.EditionShelf;
import org.polyclave.server.platform.SinglePage;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.ErrorResponseException;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** The page of an edition: its cover is there before any script, and stays if none ever comes. */
@RestController
@io.swagger.v3.oas.annotations.Hidden
class EditionPageController {
    /** Which edition it is, so that the page need not ask before it loads the rest. */
    private static final String EDITION = "<div id=\"edition\" hidden data-number=\"%d\" data-format=\"%d\"></div>";

    private final SinglePage page = new SinglePage("reader.html");
    private final EditionShelf shelf;

    EditionPageController(EditionShelf shelf) {
        this.shelf = shelf;
    }

    @GetMapping({"/k/{slug}", "/k/{slug}/{number:\\d{1,9}}"})
    ResponseEntity<String> edition(
            @PathVariable String slug, @PathVariable(required = false) @Nullable Integer number) {
        try {
            int shown = number == null ? shelf.newest(slug) : number;
            return page.answer(HttpStatus.OK, shelf.cover(slug, shown) + EDITION.formatted(shown, StudyFormat.VERSION));
        } catch (ErrorResponseException missing) {
            return missing();
        }
    }

    /** Anything else below has never been there; the page says so in words. */
    @GetMapping("/k/**")
    ResponseEntity<String> missing() {
        return page.answer(HttpStatus.NOT_FOUND, "");
    }
}
