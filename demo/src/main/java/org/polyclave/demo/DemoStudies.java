package org.polyclave.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyJson;

/** The made-up studies of the valley of Marrowmere, which does not exist. */
public final class DemoStudies {
    private DemoStudies() {}

    /** Tussock plants of wet meadows: two subspecies, a hybrid, sexes, a dangerous double. */
    public static Study tussocks() {
        return read("marrowmere-tussocks.polyclave.json");
    }

    private static Study read(String name) {
        try (InputStream in = DemoStudies.class.getResourceAsStream("/demo/" + name)) {
            if (in == null) {
                throw new IllegalStateException("The demo study '" + name + "' is missing from the build");
            }
            StudyJson.ReadStudy read = StudyJson.read(in.readAllBytes());
            Study study = read.study();
            if (study == null) {
                throw new IllegalStateException("The demo study '" + name + "': " + read.problems());
            }
            return study;
        } catch (IOException unreadable) {
            throw new UncheckedIOException("The demo study '" + name + "' cannot be read", unreadable);
        }
    }
}
