package org.polyclave.server.study.web;

import org.polyclave.server.account.Account;
import org.polyclave.server.account.Current;
import org.polyclave.server.study.StudyLife;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Studies that are deleted and not yet gone. */
@RestController
@RequestMapping("/api/v1/deleted-studies")
class DeletedStudyController {
    private final StudyLife life;

    DeletedStudyController(StudyLife life) {
        this.life = life;
    }

    /** Has a deleted study back: it is among the others again. */
    @DeleteMapping("/{slug}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void restore(@PathVariable String slug, @Current Account who) {
        life.restore(slug, who);
    }
}
