package org.polyclave.files.library;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.study.StudyJson;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;

/** Characters that many studies need, with questions, definitions and drawings of their states, to be copied into a study. */
public final class ReadyCharacters {
    private ReadyCharacters() {}

    /** Read when they are first asked for. */
    private static final class Holder {
        static final Study ALL = read();
    }

    /** All of them, as a study without rows. */
    public static Study all() {
        return Holder.ALL;
    }

    private static Study read() {
        byte[] bytes = resource("characters.json");
        Study study = bytes == null ? null : StudyJson.read(bytes).study();
        if (study == null) {
            throw new IllegalStateException("The library of ready characters is broken in this build");
        }
        return withDrawings(study);
    }

    /** Some of them, with what they need: the parts of a ratio and the pictures of their states. */
    public static Study some(Set<String> ids) {
        Study all = all();
        Set<String> wanted = new HashSet<>(ids);
        all.characters().stream().filter(c -> ids.contains(c.id())).forEach(c -> wanted.addAll(c.ratioOf()));
        List<StudyCharacter> chosen =
                all.characters().stream().filter(c -> wanted.contains(c.id())).toList();
        Set<String> shown = new HashSet<>();
        chosen.forEach(c -> c.states().forEach(s -> shown.add(s.picture())));
        return all.withCharacters(chosen)
                .withPictures(all.pictures().stream()
                        .filter(p -> shown.contains(p.id()))
                        .toList());
    }

    /** A study whose pictures without bytes get those of the drawings of the same name. */
    public static Study withDrawings(Study study) {
        List<Picture> pictures = new ArrayList<>();
        for (Picture picture : study.pictures()) {
            byte[] drawing = picture.data().isEmpty() ? resource("drawings/" + picture.id() + ".svg") : null;
            pictures.add(
                    drawing == null
                            ? picture
                            : picture.withData(Base64.getEncoder().encodeToString(drawing)));
        }
        return study.withPictures(pictures);
    }

    private static byte @Nullable [] resource(String name) {
        try (InputStream in = ReadyCharacters.class.getResourceAsStream("/library/" + name)) {
            return in == null ? null : in.readAllBytes();
        } catch (IOException unreadable) {
            throw new UncheckedIOException("The library of ready characters cannot be read", unreadable);
        }
    }
}
