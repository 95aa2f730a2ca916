package org.polyclave.server.matrix.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.matrix.CommentService;
import org.polyclave.server.matrix.persistence.CommentMapper;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Comments on cells; each answer is all of them as they are now. Whoever scores blind sees none. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/comments")
class CommentController {
    record CommentRequest(
            @NotNull String row,
            @NotNull String character,
            @NotNull @Size(max = 4_000) String text) {}

    record SettledRequest(boolean settled) {}

    private final CommentService comments;

    CommentController(CommentService comments) {
        this.comments = comments;
    }

    /** Comments on cells, the newest first. */
    @GetMapping
    List<CommentMapper.CommentLine> comments(@AtLeast(Role.VIEWER) OpenStudy open) {
        return comments.all(open);
    }

    /** Adds a comment to a cell. */
    @PostMapping
    List<CommentMapper.CommentLine> write(
            @AtLeast(Role.SCORER) OpenStudy open, @Valid @RequestBody CommentRequest request) {
        return comments.write(open, request.row(), request.character(), request.text());
    }

    /** Resolves a comment, or reopens it. */
    @PutMapping("/{id}/settled")
    List<CommentMapper.CommentLine> settle(
            @AtLeast(Role.SCORER) OpenStudy open, @PathVariable long id, @RequestBody SettledRequest request) {
        return comments.settle(open, id, request.settled());
    }
}
