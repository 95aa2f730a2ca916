package org.polyclave.server.history.web;

import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.Undoing;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Undo and redo of whatever an account changed itself. */
@RestController
@RequestMapping("/api/v1/studies/{slug}")
class UndoController {
    private final Undoing undoing;

    UndoController(Undoing undoing) {
        this.undoing = undoing;
    }

    /** What the account can undo and redo, the next ones first. */
    @GetMapping("/undo")
    Undoing.Lists list(@AtLeast(value = Role.SCORER, evenBlind = true) OpenStudy open) {
        return undoing.lists(open);
    }

    /** Undoes the account's own latest change of the study; what others changed since is stepped over. */
    @PostMapping("/undo")
    Undoing.Reversed undo(@AtLeast(value = Role.SCORER, evenBlind = true) OpenStudy open) {
        return undoing.undo(open);
    }

    /** Redoes what the account undid last. */
    @PostMapping("/redo")
    Undoing.Reversed redo(@AtLeast(value = Role.SCORER, evenBlind = true) OpenStudy open) {
        return undoing.redo(open);
    }
}
