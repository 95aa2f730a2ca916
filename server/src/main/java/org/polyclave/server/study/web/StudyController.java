package org.polyclave.server.study.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.Current;
import org.polyclave.server.platform.Created;
import org.polyclave.server.study.StudyLife;
import org.polyclave.server.study.StudyList;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyView;
import org.polyclave.study.advice.NextStep;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Studies as their members see them. */
@RestController
@RequestMapping("/api/v1/studies")
class StudyController {
    private static final int MOST_COLUMNS = 100;

    record NewStudyRequest(@NotBlank @Size(max = 200) String title) {}

    record NewStudyResponse(String slug) {}

    record AddressRequest(@NotBlank @Size(max = 100) String address) {}

    record ArchivedRequest(boolean archived) {}

    private final StudyService studies;
    private final StudyList list;
    private final StudyLife life;

    StudyController(StudyService studies, StudyList list, StudyLife life) {
        this.studies = studies;
        this.list = list;
        this.life = life;
    }

    /**
     * The studies that the account shares.
     *
     * @param find what stands in their titles
     * @param which those at work, those that are put away, or those that are deleted and can be had back
     * @param order by title, or what was changed last first
     * @param from how many to leave out
     * @param count how many at most
     */
    @GetMapping
    StudyList.StudyPage list(
            @Current Account who,
            @RequestParam(defaultValue = "") @Size(max = 200) String find,
            @RequestParam(defaultValue = "CURRENT") StudyList.Which which,
            @RequestParam(defaultValue = "TITLE") StudyList.Order order,
            @RequestParam(defaultValue = "0") @Min(0) int from,
            @RequestParam(defaultValue = "100") @Min(1) @Max(200) int count) {
        return list.list(who, find, which, order, from, count);
    }

    /** Begins a study with nothing in it yet. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<NewStudyResponse> begin(@Current Account who, @Valid @RequestBody NewStudyRequest request) {
        return made(life.begin(request.title(), who));
    }

    private static ResponseEntity<NewStudyResponse> made(String slug) {
        return Created.at(new NewStudyResponse(slug), "/api/v1/studies/{slug}", slug);
    }

    /** A made-up study of the account's own, to try things with. */
    @PostMapping("/sample")
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<NewStudyResponse> sample(@Current Account who) {
        return made(life.sample(who));
    }

    /** The same study once more, of the account's own. */
    @PostMapping("/{slug}/copy")
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<NewStudyResponse> copy(
            @AtLeast(Role.VIEWER) OpenStudy open, @Current Account who, @Valid @RequestBody NewStudyRequest request) {
        return made(life.copy(open, request.title(), who));
    }

    /** Gives a study without editions another address; answers with the one that it has now. */
    @PutMapping("/{slug}/address")
    NewStudyResponse move(@AtLeast(Role.OWNER) OpenStudy open, @Valid @RequestBody AddressRequest request) {
        return new NewStudyResponse(life.move(open, request.address()));
    }

    /** Puts a study away, or takes it out again. */
    @PutMapping("/{slug}/archived")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void archive(@AtLeast(Role.OWNER) OpenStudy open, @RequestBody ArchivedRequest request) {
        life.archive(open, request.archived());
    }

    /**
     * Deletes a study without editions; for a month its owners can have it back.
     *
     * @param title of the study, so that nobody deletes another one than they mean
     */
    @DeleteMapping("/{slug}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AtLeast(Role.OWNER) OpenStudy open, @RequestParam String title) {
        life.delete(open, title);
    }

    /** The study without its scores. */
    @GetMapping("/{slug}")
    StudyView view(@AtLeast(value = Role.VIEWER, evenBlind = true) OpenStudy open) {
        return studies.view(open);
    }

    /** What changed after a revision. */
    @GetMapping("/{slug}/changes")
    StudyService.Changes changes(
            @AtLeast(value = Role.VIEWER, evenBlind = true) OpenStudy open, @RequestParam long since) {
        return studies.changesSince(open, since);
    }

    /** What every row shows for some characters, inheritance resolved. */
    @GetMapping("/{slug}/columns")
    List<StudyView.ColumnView> columns(
            @AtLeast(value = Role.VIEWER, evenBlind = true) OpenStudy open,
            @RequestParam @Size(max = MOST_COLUMNS) List<String> character) {
        return studies.columns(open, character);
    }

    /** What would help the study most now. */
    @GetMapping("/{slug}/next-step")
    NextStep nextStep(@AtLeast(Role.VIEWER) OpenStudy open) {
        return studies.nextStep(open);
    }
}
