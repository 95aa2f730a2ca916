package org.polyclave.server.identify.web;

import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.edition.EditionService;
import org.polyclave.server.identify.IdentifyService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyStore;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Any-order keys: of a study for its members, of an edition for everybody. */
@RestController
class IdentifyController {
    private final IdentifyService identify;
    private final StudyService studies;
    private final StudyStore store;
    private final EditionService editions;

    IdentifyController(IdentifyService identify, StudyService studies, StudyStore store, EditionService editions) {
        this.identify = identify;
        this.studies = studies;
        this.store = store;
        this.editions = editions;
    }

    @PostMapping("/api/studies/{slug}/identify")
    IdentifyService.IdentifyResponse study(
            @PathVariable String slug,
            @RequestBody IdentifyService.IdentifyRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        StudyAccess.Open open = studies.open(slug, who, Role.VIEWER);
        return identify.identify(store.load(open.id()).compiled(), request);
    }

    @PostMapping("/api/editions/{slug}/{number}/identify")
    IdentifyService.IdentifyResponse edition(
            @PathVariable String slug, @PathVariable int number, @RequestBody IdentifyService.IdentifyRequest request) {
        return identify.identify(editions.compiled(slug, number), request);
    }
}
