package org.polyclave.files.study;

import java.util.List;
import java.util.function.UnaryOperator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Brings the JSON of older versions up to date, a version at a time. A step changes the objects of one part; parts without a
 * step stay as they are. Time linear in what is upgraded.
 */
public final class StudyUpgrades {
    /** Every step there is. */
    public static final StudyUpgrades ALL = new StudyUpgrades(
            StudyFormat.VERSION, List.of(new Step(1, Part.CHARACTER, StudyUpgrades::featuresOfTheirOwn)));

    /** In version 1 the characters of one organ were one feature by default; some say so by naming the organ. */
    private static ObjectNode featuresOfTheirOwn(ObjectNode character) {
        String group = character.path("group").asString("").strip();
        String organ = character.path("organ").asString("").strip();
        if (group.equalsIgnoreCase(organ) || group.equalsIgnoreCase("organ " + organ)) {
            character.put("group", "");
        }
        return character;
    }

    /** What a study is made of, by its name in study files. */
    public enum Part {
        SCOPE("scope"),
        OUTSIDE("nearButOutside"),
        ROW("rows"),
        CHARACTER("characters"),
        CELL("scores"),
        TERM("glossary"),
        REFERENCE("references"),
        CLAIM("claims"),
        PICTURE("pictures"),
        OPINION("opinions"),
        SPECIMEN("specimens"),
        READING("readings");

        private final String inFile;

        Part(String inFile) {
            this.inFile = inFile;
        }
    }

    /**
     * From one version to the next.
     *
     * @param from the older version
     * @param change changes an object in place or gives another
     */
    public record Step(int from, Part part, UnaryOperator<ObjectNode> change) {}

    private final int current;
    private final List<Step> steps;

    public StudyUpgrades(int current, List<Step> steps) {
        this.current = current;
        this.steps = List.copyOf(steps);
    }

    public int current() {
        return current;
    }

    /** Whether objects of a part look otherwise since a version. */
    public boolean isChanged(Part part, int version) {
        return steps.stream().anyMatch(s -> s.part() == part && s.from() >= version);
    }

    /** An object, or a list of outside taxa, as it looks now. */
    public JsonNode upgraded(Part part, int version, JsonNode content) {
        if (content instanceof ArrayNode list) {
            for (int i = 0; i < list.size(); i++) {
                list.set(i, upgraded(part, version, list.get(i)));
            }
            return content;
        }
        JsonNode now = content;
        for (int v = version; v < current; v++) {
            for (Step step : steps) {
                if (step.from() == v && step.part() == part && now instanceof ObjectNode object) {
                    now = step.change().apply(object);
                }
            }
        }
        return now;
    }

    /** A whole study, with or without its envelope, as it looks now. */
    public ObjectNode study(int version, ObjectNode study) {
        for (Part part : Part.values()) {
            JsonNode content = study.get(part.inFile);
            if (content != null) {
                study.set(part.inFile, upgraded(part, version, content));
            }
        }
        return study;
    }
}
