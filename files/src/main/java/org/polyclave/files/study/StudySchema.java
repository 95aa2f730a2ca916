package org.polyclave.files.study;

import com.networknt.schema.Error;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import tools.jackson.databind.JsonNode;

/** Checks a study file against its JSON Schema (2020-12), {@code docs/format/study.schema.json}. */
final class StudySchema {
    private static final int MOST_REPORTED = 50;

    private StudySchema() {}

    static List<String> validate(JsonNode root) {
        try (InputStream in = StudySchema.class.getResourceAsStream("/org/polyclave/files/schema/study.schema.json")) {
            Schema schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                    .getSchema(in);
            List<String> problems = new ArrayList<>();
            for (Error error : schema.validate(root)) {
                if (problems.size() < MOST_REPORTED) {
                    problems.add("At " + error.getInstanceLocation() + ": " + error.getMessage() + ".");
                }
            }
            return problems;
        } catch (IOException unreadable) {
            throw new UncheckedIOException("The schema of study files cannot be read", unreadable);
        }
    }
}
