package org.polyclave.server.study.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.Size;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.formats.study.StudyJson;
import org.polyclave.formats.table.TableWriter;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.ScoreService;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyStore;
import org.polyclave.server.study.StudyView;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
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

    record EditRequest(@NotEmpty @Size(max = MOST_EDITS) List<ScoreService.CellEdit> edits) {}

    record RevisionResponse(long revision) {}

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

    @GetMapping("/{slug}")
    StudyView view(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return studies.view(studies.open(slug, who, Role.VIEWER));
    }

    @GetMapping("/{slug}/changes")
    StudyService.Changes changes(
            @PathVariable String slug, @RequestParam long since, @AuthenticationPrincipal @Nullable SignedIn who) {
        return studies.changesSince(studies.open(slug, who, Role.VIEWER), since);
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
        return new RevisionResponse(studies.undo(studies.open(slug, who, Role.SCORER)));
    }

    @PostMapping("/{slug}/redo")
    RevisionResponse redo(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return new RevisionResponse(studies.redo(studies.open(slug, who, Role.SCORER)));
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

    /** The whole study: {@code csv}, {@code tsv} or {@code json}. */
    @GetMapping("/{slug}/export")
    ResponseEntity<byte[]> export(
            @PathVariable String slug, @RequestParam String format, @AuthenticationPrincipal @Nullable SignedIn who) {
        StudyAccess.Open open = studies.open(slug, who, Role.VIEWER);
        StudyStore.Snapshot snapshot = store.load(open.id());
        return switch (format) {
            case "csv" -> file(slug + ".csv", "text/csv", TableWriter.write(snapshot.study(), ','));
            case "tsv" ->
                file(slug + ".tsv", "text/tab-separated-values", TableWriter.write(snapshot.study(), '\t'));
            case "json" -> file(slug + ".polyclave.json", "application/json", StudyJson.write(snapshot.study()));
            default -> throw Problems.badRequest("format", "Export knows csv, tsv and json.");
        };
    }

    private static ResponseEntity<byte[]> file(String name, String type, String text) {
        return ResponseEntity.ok()
                .contentType(new MediaType(MediaType.parseMediaType(type), StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment().filename(name).build().toString())
                .body(text.getBytes(StandardCharsets.UTF_8));
    }
}
