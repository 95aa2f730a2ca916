package org.polyclave.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.demo.specimen.SimulatedSpecimens;
import org.polyclave.files.library.ReadyCharacters;
import org.polyclave.files.study.StudyJson;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Study;

/** The made-up studies of the valley of Marrowmere, which does not exist. */
public final class DemoStudies {
    private DemoStudies() {}

    public static List<Study> all() {
        return List.of(tussocks(), browncaps(), crabs());
    }

    /** Tussock plants of wet meadows: two subspecies, a hybrid, sexes, a dangerous double. */
    public static Study tussocks() {
        return read("marrowmere-tussocks");
    }

    /** Brown-capped woodland mushrooms, a deadly one with its button and its washed form; planted slips and gaps. */
    public static Study browncaps() {
        return read("marrowmere-browncaps");
    }

    /** Shore crabs, male, female and young: an invader, a protected species, a poisonous one with a rare plain form. */
    public static Study crabs() {
        return read("marrowmere-crabs");
    }

    /** The studies with specimens: with pictures and readings, made at each call, which takes some seconds. */
    public static List<Study> withSpecimens() {
        List<Study> studies = new ArrayList<>();
        for (Study study : all()) {
            studies.add(SimulatedSpecimens.of(study, 1000L + studies.size()));
        }
        return studies;
    }

    private static Study read(String name) {
        byte[] bytes = resource(name + ".polyclave.json");
        StudyJson.ReadStudy read = bytes == null ? null : StudyJson.read(bytes);
        Study study = read == null ? null : read.study();
        if (study == null) {
            throw new IllegalStateException(
                    "The demo study '" + name + "': " + (read == null ? "missing from the build" : read.problems()));
        }
        Study drawn = ReadyCharacters.withDrawings(study);
        return drawn.withPictures(
                drawn.pictures().stream().map(DemoStudies::withDrawing).toList());
    }

    /** Drawings that only the demo needs stand in its own folder. */
    private static Picture withDrawing(Picture picture) {
        byte[] drawing = picture.data().isEmpty() ? resource("drawings/" + picture.id() + ".svg") : null;
        return drawing == null ? picture : picture.withData(Base64.getEncoder().encodeToString(drawing));
    }

    private static byte @Nullable [] resource(String name) {
        try (InputStream in = DemoStudies.class.getResourceAsStream("/demo/" + name)) {
            return in == null ? null : in.readAllBytes();
        } catch (IOException unreadable) {
            throw new UncheckedIOException("The demo's '" + name + "' cannot be read", unreadable);
        }
    }
}
