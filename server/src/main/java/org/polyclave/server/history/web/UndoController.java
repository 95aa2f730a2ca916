package org.polyclave.server.history.web;

import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.ChangeLog;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Undo and redo of whatever an account changed itself. */
@RestController
@RequestMapping("/api/v1/studies/{slug}")
class UndoController {
    record RevisionResponse(long revision) {}

    private final ChangeLog log;

    UndoController(ChangeLog log) {
        this.log = log;
    }

    /** Undoes the account's own latest change of the study. */
    @PostMapping("/undo")
    RevisionResponse undo(@AtLeast(value = Role.SCORER, evenBlind = true) OpenStudy open) {
        return new RevisionResponse(log.undo(open));
    }

    /** Redoes what the account undid last. */
    @PostMapping("/redo")
    RevisionResponse redo(@AtLeast(value = Role.SCORER, evenBlind = true) OpenStudy open) {
        return new RevisionResponse(log.redo(open));
    }
}
