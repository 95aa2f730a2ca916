package org.polyclave.server.study.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.convert.FileLosses;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.convert.MatrixFiles.Format;
import org.polyclave.files.table.TableWriter.Layout;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.ScoreService;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyStore;
import org.polyclave.server.study.StudyView;
import org.polyclave.study.model.Study;
import org.polyclave.study.rules.Limits;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Studies: reading, scoring, exporting, sharing. */
@RestController
@RequestMapping("/api/studies")
class StudyController {
    private static final int MOST_EDITS = 20_000;
    private static final int MOST_COLUMNS = 100;

    private static final Map<String, Format> FORMATS = Map.of(
            "csv", Format.CSV,
            "tsv", Format.TSV,
            "xlsx", Format.XLSX,
            "nexus", Format.NEXUS,
            "darwin-core", Format.DARWIN_CORE,
            "json", Format.STUDY);

    record EditRequest(@NotEmpty @Size(max = MOST_EDITS) List<ScoreService.CellEdit> edits) {}

    record RevisionResponse(long revision) {}

    record NewStudyRequest(@NotBlank @Size(max = 200) String title) {}

    record NewStudyResponse(String slug) {}

    record ShareRequest(String account, Role role) {}

    record MemberResponse(String name, String displayName, Role role) {}

    private final StudyService studies;
    private final ScoreService scores;
    private final StudyStore store;

    StudyController(StudyService studies, ScoreService scores, StudyStore store) {
        this.studies = studies;
        this.scores = scores;
        this.store = store;
    }

    @GetMapping
    List<StudyService.StudyLine> list(@AuthenticationPrincipal @Nullable SignedIn who) {
        if (who == null) {
            throw Problems.notFound();
        }
        return studies.list(who);
    }

    /** Begins a study with nothing in it yet. */
    @PostMapping
    NewStudyResponse begin(
            @Valid @RequestBody NewStudyRequest request, @AuthenticationPrincipal @Nullable SignedIn who) {
        if (who == null) {
            throw Problems.notFound();
        }
        return new NewStudyResponse(studies.begin(request.title(), who));
    }

    @GetMapping("/{slug}")
    StudyView view(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return studies.view(studies.openEvenBlind(slug, who, Role.VIEWER));
    }

    @GetMapping("/{slug}/changes")
    StudyService.Changes changes(
            @PathVariable String slug, @RequestParam long since, @AuthenticationPrincipal @Nullable SignedIn who) {
        return studies.changesSince(studies.openEvenBlind(slug, who, Role.VIEWER), since);
    }

    @GetMapping("/{slug}/columns")
    List<StudyView.ColumnView> columns(
            @PathVariable String slug,
            @RequestParam @Size(max = MOST_COLUMNS) List<String> character,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return studies.columns(studies.openEvenBlind(slug, who, Role.VIEWER), character);
    }

    @GetMapping("/{slug}/next-step")
    StudyView.NextStep nextStep(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return studies.nextStep(studies.open(slug, who, Role.VIEWER));
    }

    @GetMapping("/{slug}/history")
    List<StudyService.CellHistory> history(
            @PathVariable String slug,
            @RequestParam String row,
            @RequestParam String character,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return studies.history(studies.open(slug, who, Role.VIEWER), row, character);
    }

    @PostMapping("/{slug}/scores")
    RevisionResponse edit(
            @PathVariable String slug,
            @Valid @RequestBody EditRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return new RevisionResponse(scores.edit(studies.open(slug, who, Role.SCORER), request.edits()));
    }

    @PostMapping("/{slug}/undo")
    RevisionResponse undo(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return new RevisionResponse(studies.undo(studies.openEvenBlind(slug, who, Role.SCORER)));
    }

    @PostMapping("/{slug}/redo")
    RevisionResponse redo(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return new RevisionResponse(studies.redo(studies.openEvenBlind(slug, who, Role.SCORER)));
    }

    @GetMapping("/{slug}/members")
    List<MemberResponse> members(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return studies.members(studies.open(slug, who, Role.VIEWER)).stream()
                .map(m -> new MemberResponse(m.name(), m.displayName(), Role.valueOf(m.role())))
                .toList();
    }

    @PutMapping("/{slug}/members")
    void share(
            @PathVariable String slug,
            @RequestBody ShareRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        studies.share(studies.open(slug, who, Role.OWNER), request.account(), request.role());
    }

    /** Takes the study from a member; what they did stays. */
    @DeleteMapping("/{slug}/members/{account}")
    void unshare(
            @PathVariable String slug, @PathVariable String account, @AuthenticationPrincipal @Nullable SignedIn who) {
        studies.unshare(studies.open(slug, who, Role.OWNER), account);
    }

    /**
     * The whole study.
     *
     * @param format csv, tsv, xlsx, nexus, darwin-core or json
     * @param layout of tables: wide or long
     * @param whole whether the file takes along what its format cannot say
     */
    @GetMapping("/{slug}/export")
    ResponseEntity<byte[]> export(
            @PathVariable String slug,
            @RequestParam String format,
            @RequestParam(defaultValue = "wide") String layout,
            @RequestParam(defaultValue = "false") boolean whole,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        StudyAccess.Open open = studies.open(slug, who, Role.VIEWER);
        Format target = FORMATS.get(format);
        if (target == null || !(layout.equals("wide") || layout.equals("long"))) {
            throw Problems.badRequest(
                    "format",
                    "Export knows csv, tsv, xlsx, nexus, darwin-core and json, and the layouts wide and long.");
        }
        Layout laid = layout.equals("long") ? Layout.LONG : Layout.WIDE;
        Study study = store.load(open.id()).study().withoutSensitivePlaces();
        Study written = whole || target == Format.STUDY ? store.withPictures(open.id(), study) : study;
        byte[] bytes = whole ? MatrixFiles.writeWhole(written, target, laid) : MatrixFiles.write(written, target, laid);
        if (whole && target != Format.STUDY && bytes.length > Limits.TABLE_BYTES) {
            throw Problems.unprocessable(
                    "too-large",
                    "With all that the study holds the table has more than 25 MB, which could not be read back."
                            + " Take the study file.",
                    Map.of());
        }
        String name = slug + (laid == Layout.LONG ? "-long." : ".") + target.ending();
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(target.mediaType()))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment().filename(name).build().toString())
                .body(bytes);
    }

    /** What a file of the study would not hold, one sentence a kind of loss. */
    @GetMapping("/{slug}/export/losses")
    List<String> losses(
            @PathVariable String slug,
            @RequestParam String format,
            @RequestParam(defaultValue = "wide") String layout,
            @RequestParam(defaultValue = "false") boolean whole,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        ResponseEntity<byte[]> file = export(slug, format, layout, whole, who);
        StudyAccess.Open open = studies.open(slug, who, Role.VIEWER);
        Study study =
                store.withPictures(open.id(), store.load(open.id()).study().withoutSensitivePlaces());
        Format target = FORMATS.getOrDefault(format, Format.STUDY);
        byte[] bytes = java.util.Objects.requireNonNull(file.getBody());
        return FileLosses.of(
                study,
                MatrixFiles.read(bytes, study.title() + "." + target.ending()).study());
    }
}
