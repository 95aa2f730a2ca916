package org.polyclave.server.history.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.history.ChangePreview;
import org.polyclave.server.history.SnapshotService;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.history.persistence.SnapshotMapper;
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
@RequestMapping("/api/v1/studies/{slug}/snapshots")
class SnapshotController {
    record SnapshotRequest(@NotNull @Size(max = 120) String name) {}

    record RestoreRequest(long baseRevision) {}

    private final SnapshotService snapshots;

    SnapshotController(SnapshotService snapshots) {
        this.snapshots = snapshots;
    }

    /** Snapshots of the study, the newest first. */
    @GetMapping
    List<SnapshotMapper.SnapshotLine> snapshots(@AtLeast(Role.VIEWER) OpenStudy open) {
        return snapshots.all(open);
    }

    /** Keeps the study as it is now under a name. */
    @PostMapping
    List<SnapshotMapper.SnapshotLine> take(
            @AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody SnapshotRequest request) {
        return snapshots.take(open, request.name());
    }

    /** What differs between two snapshots, or one and the study now. */
    @GetMapping("/difference")
    ChangePreview difference(@AtLeast(Role.VIEWER) OpenStudy open, @RequestParam long from, @RequestParam long to) {
        return snapshots.difference(open, from, to);
    }

    /** Makes the study what it was at a snapshot, as one change. */
    @PostMapping("/{id}/restore")
    StudyWriter.Written restore(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable long id, @RequestBody RestoreRequest request) {
        return snapshots.restore(open, id, request.baseRevision());
    }

    /** Removes a snapshot. */
    @DeleteMapping("/{id}")
    void remove(@AtLeast(Role.OWNER) OpenStudy open, @PathVariable long id) {
        snapshots.remove(open, id);
    }
}
