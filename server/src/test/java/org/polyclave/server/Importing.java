package org.polyclave.server;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** A file that somebody imports, as the page does it: sent once, then asked about until the answer is there. */
public final class Importing {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final Visitor who;
    private final ObjectNode request = JSON.createObjectNode();
    private String at = "/api/v1/imports";

    private Importing(Visitor who, String fileName, byte[] content) {
        this.who = who;
        Visitor.Answer sent = who.upload("/api/v1/uploads", fileName, content, Map.of());
        request.set("upload", sent.json().path("id"));
    }

    public static Importing of(Visitor who, String fileName, byte[] content) {
        return new Importing(who, fileName, content);
    }

    public static Importing of(Visitor who, String fileName, String content) {
        return of(who, fileName, content.getBytes(StandardCharsets.UTF_8));
    }

    /** Id of the file. */
    String upload() {
        return request.path("upload").asString();
    }

    /** Joins a study instead of becoming one. */
    public Importing into(String study) {
        at = study + "/imports";
        return this;
    }

    /** @param json value of a field of the request */
    public Importing with(String field, String json) {
        request.set(field, JSON.readTree(json));
        return this;
    }

    public Importing titled(String title) {
        request.put("title", title);
        return this;
    }

    public JsonNode look() {
        return ask("LOOK").json().path("answer").path("sheet");
    }

    public JsonNode preview() {
        return ask("PREVIEW").json().path("answer").path("preview");
    }

    /** What it would change in the study that it is to join. */
    public JsonNode changes() {
        return ask("PREVIEW").json().path("answer").path("changes");
    }

    /** Imports; the answer holds the new study's {@code slug}, or what was {@code written}. */
    public Visitor.Answer run() {
        return ask("IMPORT");
    }

    /** Imports as a new study, and returns its slug. */
    public String create() {
        Visitor.Answer answer = run();
        String slug = answer.json().path("answer").path("slug").asString("");
        if (slug.isEmpty()) {
            throw new IllegalStateException("Import failed: " + answer.body());
        }
        return slug;
    }

    /** What was asked, and how it ended. */
    public Visitor.Answer ask(String step) {
        Visitor.Answer answer = begin(step);
        while (answer.status() == 200 && answer.json().path("status").asString().matches("QUEUED|RUNNING")) {
            answer = who.get(at + "/" + answer.json().path("id").asString());
        }
        return answer;
    }

    /** Only asks. */
    public Visitor.Answer begin(String step) {
        return who.post(at, request.put("step", step).toString());
    }
}
