package org.polyclave.files.library;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Base64;
import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.polyclave.files.picture.PictureFile;
import org.polyclave.study.change.StudyJoin;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;

final class ReadyCharactersTest {
    @Test
    void everyStateHasItsOwnDrawingAndWords() throws Exception {
        Study library = ReadyCharacters.all();
        Set<String> drawings = new HashSet<>();
        for (Picture picture : library.pictures()) {
            PictureFile file = PictureFile.of(Base64.getDecoder().decode(picture.data()));
            assertThat(file.mediaType()).isEqualTo("image/svg+xml");
            assertThat(drawings.add(new String(file.bytes(), java.nio.charset.StandardCharsets.UTF_8)))
                    .as("%s is drawn like another", picture.id())
                    .isTrue();
        }
        for (StudyCharacter character : library.characters()) {
            assertThat(character.question()).as(character.id()).endsWith("?");
            assertThat(character.plainQuestion()).as(character.id()).endsWith("?");
            for (StudyCharacter.StudyState state : character.states()) {
                assertThat(state.definition())
                        .as(character.id() + " " + state.id())
                        .isNotBlank();
                assertThat(state.picture()).isEqualTo(character.id() + "-" + state.id());
                assertThat(character.states().stream().map(StudyCharacter.StudyState::id))
                        .containsAll(state.mistakenFor());
            }
        }
    }

    @Test
    void aRatioBringsItsPartsAndCharactersBringTheirPictures() {
        Study some = ReadyCharacters.some(Set.of("carapace-ratio", "claws"));

        assertThat(some.characters())
                .extracting(StudyCharacter::id)
                .containsExactly("carapace-width", "carapace-length", "carapace-ratio", "claws");
        assertThat(some.pictures()).extracting(Picture::id).containsExactly("claws-alike", "claws-unequal");
        Study empty = some.withCharacters(java.util.List.of()).withPictures(java.util.List.of());
        Study joined = StudyJoin.of(empty, some).study();
        assertThat(joined.characters()).isEqualTo(some.characters());
        assertThat(joined.pictures()).isEqualTo(some.pictures());
        assertThat(StudyJoin.of(joined, some).study())
                .as("copying twice changes nothing")
                .isEqualTo(joined);
    }
}
