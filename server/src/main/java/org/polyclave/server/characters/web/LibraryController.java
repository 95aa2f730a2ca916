package org.polyclave.server.characters.web;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.library.ReadyCharacters;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.change.StudyJoin;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Ready characters, and copying them into a study. */
@RestController
@RequestMapping("/api/v1")
class LibraryController {
    private static final int MOST_AT_ONCE = 100;

    /** @param pictures with their bytes in Base64 */
    record LibraryResponse(List<StudyCharacter> characters, List<Picture> pictures) {}

    record CopyRequest(@NotEmpty @Size(max = MOST_AT_ONCE) Set<String> characters, long baseRevision) {}

    private final StudyWriter writer;

    LibraryController(StudyWriter writer) {
        this.writer = writer;
    }

    /** Ready characters to copy into a study. */
    @GetMapping("/library")
    LibraryResponse library(@AuthenticationPrincipal @Nullable SignedIn who) {
        if (who == null) {
            throw Problems.notFound();
        }
        Study all = ReadyCharacters.all();
        return new LibraryResponse(all.characters(), all.pictures());
    }

    /** Copies characters with their pictures, as one undoable change; those that are there already stay as they are. */
    @PostMapping("/studies/{slug}/library")
    StudyWriter.Written copy(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody CopyRequest request) {
        Study chosen = ReadyCharacters.some(request.characters());
        return writer.replace(open, request.baseRevision(), now -> joined(now, chosen));
    }

    private static Study joined(Study now, Study chosen) {
        Set<String> known = new java.util.HashSet<>();
        now.characters().forEach(c -> known.add(c.id()));
        List<StudyCharacter> others = chosen.characters().stream()
                .filter(c -> !known.contains(c.id()))
                .toList();
        return StudyJoin.of(now, chosen.withCharacters(others)).study();
    }
}
