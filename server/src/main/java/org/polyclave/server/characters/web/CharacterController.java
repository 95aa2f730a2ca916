package org.polyclave.server.characters.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.characters.CharacterService;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.Created;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.lead.ClausePreview;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Editing characters. {@code baseRevision} is the revision of the object that the editor saw, from the study's {@code revisions}. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/characters")
class CharacterController {
    record CharacterRequest(@NotNull StudyCharacter character, long baseRevision) {}

    /** @param before what it is to come before; absent: behind all others */
    record MoveRequest(@Nullable String parent, @Nullable String before, long baseRevision) {}

    private final CharacterService characters;

    CharacterController(CharacterService characters) {
        this.characters = characters;
    }

    /** Adds a character behind the others. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<StudyWriter.Written> addCharacter(
            @AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody CharacterRequest request) {
        StudyWriter.Written written = characters.addCharacter(open, request.character());
        return Created.at(written, "/api/v1/studies/{slug}/characters/{id}", open.slug(), written.id());
    }

    /** Replaces a character. */
    @PutMapping("/{id}")
    StudyWriter.Written putCharacter(
            @AtLeast(Role.EDITOR) OpenStudy open,
            @PathVariable String id,
            @Valid @RequestBody CharacterRequest request) {
        return characters.putCharacter(open, request.character().withId(id), request.baseRevision());
    }

    /** How a character would read in leads; nothing is written. */
    @PostMapping("/clause")
    ClausePreview clause(@AtLeast(Role.VIEWER) OpenStudy open, @RequestBody @NotNull StudyCharacter character) {
        StudyWriter.refuse(StudyRules.checkLead(character));
        return ClausePreview.of(character);
    }

    /** Moves a character before another one, or behind all. */
    @PostMapping("/{id}/move")
    StudyWriter.Written moveCharacter(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @Valid @RequestBody MoveRequest request) {
        if (request.parent() != null) {
            throw Problems.badRequest(ProblemCode.PARENT, "Characters have no parent.");
        }
        return characters.moveCharacter(open, id, request.before(), request.baseRevision());
    }

    /** Removes a character and its scores. */
    @DeleteMapping("/{id}")
    StudyWriter.Written removeCharacter(
            @AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id, @RequestParam long baseRevision) {
        return characters.removeCharacter(open, id, baseRevision);
    }
}
