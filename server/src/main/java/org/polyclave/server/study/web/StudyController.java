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
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyView;
import org.polyclave.study.advice.NextStep;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
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

    private final StudyService studies;

    StudyController(StudyService studies) {
        this.studies = studies;
    }

    /**
     * The studies that the account shares, by title.
     *
     * @param from how many to leave out
     * @param count how many at most
     */
    @GetMapping
    StudyService.StudyPage list(
            @Current Account who,
            @RequestParam(defaultValue = "0") @Min(0) int from,
            @RequestParam(defaultValue = "100") @Min(1) @Max(200) int count) {
        return studies.list(who, from, count);
    }

    /** Begins a study with nothing in it yet. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<NewStudyResponse> begin(@Current Account who, @Valid @RequestBody NewStudyRequest request) {
        String slug = studies.begin(request.title(), who);
        return Created.at(new NewStudyResponse(slug), "/api/v1/studies/{slug}", slug);
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
