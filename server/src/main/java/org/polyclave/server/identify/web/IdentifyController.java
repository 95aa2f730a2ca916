package org.polyclave.server.identify.web;

import java.util.List;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.edition.EditionShelf;
import org.polyclave.server.identify.IdentificationView;
import org.polyclave.server.identify.IdentifyService;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.notation.TypedAnswer;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Any-order keys: of a study for its members, of an edition for everybody. */
@RestController
class IdentifyController {
    private static final int LONGEST = 60;

    private final IdentifyService identify;
    private final StudyStore store;
    private final EditionShelf editions;

    IdentifyController(IdentifyService identify, StudyStore store, EditionShelf editions) {
        this.identify = identify;
        this.store = store;
        this.editions = editions;
    }

    /** Weighs answers on a study as it is now; nothing about the reader is kept. */
    @PostMapping("/api/v1/studies/{slug}/identify")
    IdentificationView.IdentifyResponse study(
            @AtLeast(Role.VIEWER) OpenStudy open, @RequestBody IdentifyService.IdentifyRequest request) {
        return identify.identify(store.load(open.id()).compiled(), List.of(), request);
    }

    /** Weighs answers on an edition; nothing about the reader is kept. */
    @PostMapping("/api/v1/editions/{slug}/{number}/identify")
    IdentificationView.IdentifyResponse edition(
            @PathVariable String slug, @PathVariable int number, @RequestBody IdentifyService.IdentifyRequest request) {
        EditionShelf.ReadableEdition edition = editions.readable(slug, number);
        return identify.identify(edition.study(), edition.keys(), request);
    }

    /** Weighs answers on several individuals that were picked together, each by itself; nothing about the reader is kept. */
    @PostMapping("/api/v1/editions/{slug}/{number}/handful")
    IdentifyService.HandfulResponse handful(
            @PathVariable String slug, @PathVariable int number, @RequestBody IdentifyService.HandfulRequest request) {
        return identify.handful(editions.compiled(slug, number), request);
    }

    /**
     * Reads a number as somebody typed it as an answer, in the notation of cells.
     *
     * @param unit of the character
     */
    @GetMapping("/api/v1/typed-answers")
    TypedAnswer readTyped(
            @RequestParam String typed,
            @RequestParam CharacterType type,
            @RequestParam(defaultValue = "") String unit) {
        if (!type.isNumeric() || typed.length() > LONGEST) {
            throw Problems.badRequest(ProblemCode.NO_NUMBER, "Only short answers with numbers are read here.");
        }
        return TypedAnswer.of(typed, type, unit);
    }
}
