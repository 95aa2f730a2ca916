package org.polyclave.files.study;

import java.util.Map;
import tools.jackson.databind.json.JsonMapper;

/**
 * The JSON of a study and of its objects as a contract: version {@value #VERSION}. Study files, snapshots, the bodies in the
 * database and the documents of editions say by which version they were written; {@link StudyUpgrades} brings what is older up
 * to date: files and editions when they are read, bodies when the server starts.
 */
public final class StudyFormat {
    /** What this program writes. */
    public static final int VERSION = 2;

    private StudyFormat() {}

    /** By type of the model, a type whose annotations say how it looks in JSON. */
    public static Map<Class<?>, Class<?>> shapes() {
        return StudyShapes.ALL;
    }

    /** A mapper that knows the shapes. */
    public static JsonMapper.Builder mapper() {
        JsonMapper.Builder builder = JsonMapper.builder();
        StudyShapes.ALL.forEach(builder::addMixIn);
        return builder;
    }
}
