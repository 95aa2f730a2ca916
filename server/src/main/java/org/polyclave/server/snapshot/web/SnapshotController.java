package org.polyclave.server.snapshot.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.snapshot.SnapshotService;
import org.polyclave.server.snapshot.persistence.SnapshotMapper;
import org.polyclave.server.study.OperationService;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.server.study.StudyWriter;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Snapshots of a study; number 0 stands for the study as it is now. */
@RestController
@RequestMapping("/api/studies/{slug}/snapshots")
class SnapshotController {
    record SnapshotRequest(@NotNull @Size(max = 120) String name) {}

    record RestoreRequest(long seen) {}

    private final StudyService studies;
    private final SnapshotService snapshots;

    SnapshotController(StudyService studies, SnapshotService snapshots) {
        this.studies = studies;
        this.snapshots = snapshots;
    }

    @GetMapping
    List<SnapshotMapper.SnapshotLine> all(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return snapshots.all(open(slug, who, Role.VIEWER));
    }

    @PostMapping
    List<SnapshotMapper.SnapshotLine> take(
            @PathVariable String slug,
            @Valid @RequestBody SnapshotRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return snapshots.take(open(slug, who, Role.EDITOR), request.name());
    }

    @GetMapping("/difference")
    OperationService.ChangePreview difference(
            @PathVariable String slug,
            @RequestParam long from,
            @RequestParam long to,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return snapshots.difference(open(slug, who, Role.VIEWER), from, to);
    }

    @PostMapping("/{id}/restore")
    StudyWriter.Written restore(
            @PathVariable String slug,
            @PathVariable long id,
            @RequestBody RestoreRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return snapshots.restore(open(slug, who, Role.EDITOR), id, request.seen());
    }

    @DeleteMapping("/{id}")
    void remove(@PathVariable String slug, @PathVariable long id, @AuthenticationPrincipal @Nullable SignedIn who) {
        snapshots.remove(open(slug, who, Role.OWNER), id);
    }

    private StudyAccess.Open open(String slug, @Nullable SignedIn who, Role needed) {
        return studies.open(slug, who, needed);
    }
}
