package org.polyclave.server.comment.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.comment.CommentService;
import org.polyclave.server.comment.persistence.CommentMapper;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyService;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Comments on cells; each answer is all of them as they are now. Whoever scores blind sees none. */
@RestController
@RequestMapping("/api/studies/{slug}/comments")
class CommentController {
    record CommentRequest(
            @NotNull String row,
            @NotNull String character,
            @NotNull @Size(max = 4_000) String text) {}

    record SettledRequest(boolean settled) {}

    private final StudyService studies;
    private final CommentService comments;

    CommentController(StudyService studies, CommentService comments) {
        this.studies = studies;
        this.comments = comments;
    }

    @GetMapping
    List<CommentMapper.CommentLine> all(@PathVariable String slug, @AuthenticationPrincipal @Nullable SignedIn who) {
        return comments.all(studies.open(slug, who, Role.VIEWER));
    }

    @PostMapping
    List<CommentMapper.CommentLine> write(
            @PathVariable String slug,
            @Valid @RequestBody CommentRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return comments.write(studies.open(slug, who, Role.SCORER), request.row(), request.character(), request.text());
    }

    @PutMapping("/{id}/settled")
    List<CommentMapper.CommentLine> settle(
            @PathVariable String slug,
            @PathVariable long id,
            @RequestBody SettledRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return comments.settle(studies.open(slug, who, Role.SCORER), id, request.settled());
    }
}
