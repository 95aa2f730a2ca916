package org.polyclave.files.convert;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.study.StudyJson;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.InvalidInput;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;

/**
 * A study read from a plain file, with its {@link Supplement} brought in. Where the plain file was changed since it was
 * written, the file holds, and what the supplement knows of that thing is left out and told.
 */
final class Supplemented {
    private final Study read;
    private final JsonNode supplement;
    private final Map<String, String> rowIds = new HashMap<>();
    private final Map<String, String> characterIds = new HashMap<>();
    /** By character as the file has it: states as the file has them to states as they are. */
    private final Map<String, Map<String, String>> stateIds = new HashMap<>();

    private final Set<String> changed = new HashSet<>();

    /** @param notices what was left out, in sentences */
    record Result(Study study, List<String> notices) {}

    private Supplemented(Study read, JsonNode supplement) {
        this.read = read;
        this.supplement = supplement;
    }

    static Result of(Study read, String supplement) {
        Supplemented bringing;
        try {
            bringing = new Supplemented(read, Supplement.JSON.readTree(supplement));
        } catch (JacksonException broken) {
            return new Result(read, List.of("The supplement of the file is damaged, so only the table was read."));
        }
        try {
            return bringing.result();
        } catch (JacksonException | InvalidInput broken) {
            return new Result(
                    read,
                    List.of("The supplement of the file does not fit it any more, so only the table was read: "
                            + broken.getMessage()));
        }
    }

    private Result result() {
        ObjectNode study = Supplement.JSON.valueToTree(read.withScores(List.of()));
        JsonNode whole = supplement.path("study");
        Supplement.FROM_FILE_NAME.forEach(
                name -> whole.optional(name).ifPresent(pair -> study.set(name, pair.path(1))));
        patch(study, whole, "the study");
        study.set("rows", parts("rows", rowIds));
        study.set("characters", parts("characters", characterIds));
        study.set("scores", scores());
        study.put("format", "polyclave-study");
        study.put("version", 1);
        StudyJson.ReadStudy done =
                StudyJson.read(Supplement.JSON.writeValueAsString(study).getBytes(StandardCharsets.UTF_8));
        if (done.study() == null) {
            throw new InvalidInput(String.join(" ", done.problems()));
        }
        List<String> notices = changed.isEmpty()
                ? List.of()
                : List.of("Changed in the file since it was written, so that only what the file says was taken: "
                        + changed.stream()
                                .sorted()
                                .limit(5)
                                .reduce((a, b) -> a + ", " + b)
                                .orElse("")
                        + (changed.size() > 5 ? " and " + (changed.size() - 5) + " more." : "."));
        return new Result(done.study(), notices);
    }

    /**
     * Sets the true values of fields that the file left as it was written.
     *
     * @return the fields that were set
     */
    private Set<String> patch(ObjectNode node, JsonNode fields, String name) {
        Set<String> set = new HashSet<>();
        fields.properties().forEach(field -> {
            JsonNode is = node.get(field.getKey());
            if (Supplement.same(is, field.getValue().path(0))) {
                node.set(field.getKey(), field.getValue().path(1));
                set.add(field.getKey());
            } else if (!Supplement.same(is, field.getValue().path(1))) {
                changed.add(name);
            }
        });
        return set;
    }

    /** Rows or characters in their true order; those that are new in the file come last. */
    private ArrayNode parts(String kind, Map<String, String> ids) {
        Map<String, ObjectNode> found = new LinkedHashMap<>();
        for (JsonNode one : Supplement.JSON.valueToTree(kind.equals("rows") ? read.rows() : read.characters())) {
            found.put(one.path("id").asString(), (ObjectNode) one);
        }
        for (JsonNode entry : supplement.path(kind)) {
            String as = entry.path("as").asString("");
            ids.put(as, entry.path("fields").path("id").path(1).asString(as));
        }
        List<ObjectNode> parts = new ArrayList<>();
        for (JsonNode entry : supplement.path(kind)) {
            JsonNode as = entry.path("as");
            JsonNode fields = entry.path("fields");
            ObjectNode part = as.isNull() ? Supplement.JSON.createObjectNode() : found.remove(as.asString());
            if (part == null) {
                changed.add("'" + as.asString() + "'");
                ids.remove(as.asString());
                continue;
            }
            noteStates(as.asString(""), fields.path("states"));
            Set<String> set = patch(part, fields, "'" + part.path("label").asString(as.asString("")) + "'");
            if (as.isNull()) {
                ids.put(part.path("id").asString(), part.path("id").asString());
            }
            references(part, set, ids);
            parts.add(part);
        }
        found.values().forEach(part -> references(part, Set.of(), ids));
        parts.addAll(found.values());
        return Supplement.JSON.createArrayNode().addAll(parts);
    }

    /** What still names others as the file does names them as they are called now. */
    private static void references(ObjectNode part, Set<String> set, Map<String, String> ids) {
        if (part.path("parent").isString() && !set.contains("parent")) {
            part.set("parent", named(part.path("parent"), ids));
        }
        for (String list : List.of("hybridOf", "ratioOf")) {
            if (part.path(list) instanceof ArrayNode others && !set.contains(list)) {
                for (int i = 0; i < others.size(); i++) {
                    others.set(i, named(others.get(i), ids));
                }
            }
        }
        for (JsonNode condition : set.contains("appliesWhen") ? List.<JsonNode>of() : part.path("appliesWhen")) {
            if (condition instanceof ObjectNode on) {
                on.set("character", named(on.path("character"), ids));
            }
        }
    }

    private static JsonNode named(JsonNode id, Map<String, String> ids) {
        return id.isString() ? StringNode.valueOf(ids.getOrDefault(id.asString(), id.asString())) : id;
    }

    private void noteStates(String character, JsonNode states) {
        Map<String, String> now = new HashMap<>();
        states.path(1)
                .forEach(s -> now.put(s.path("label").asString(), s.path("id").asString()));
        Map<String, String> ids = new HashMap<>();
        states.path(0).forEach(s -> {
            String id = now.get(s.path("label").asString());
            if (id != null) {
                ids.put(s.path("id").asString(), id);
            }
        });
        stateIds.put(character, ids);
    }

    private ArrayNode scores() {
        Map<String, Map<String, StudyScore>> plain = read.scoresByRow();
        Map<String, StudyCharacter> characters = Supplement.by(read.characters(), StudyCharacter::id);
        Map<String, ObjectNode> byCell = new LinkedHashMap<>();
        read.scores()
                .forEach(s -> byCell.put(
                        s.row() + '/' + s.character(), stated(Supplement.JSON.valueToTree(s), s.character())));
        Set<String> patched = new HashSet<>();
        for (JsonNode group : supplement.path("scores")) {
            group.path("cells")
                    .properties()
                    .forEach(row -> row.getValue().properties().forEach(cell -> {
                        StudyScore is =
                                plain.getOrDefault(row.getKey(), Map.of()).get(cell.getKey());
                        String says = Supplement.text(is, characters.get(cell.getKey()));
                        String key = row.getKey() + '/' + cell.getKey();
                        if (!rowIds.containsKey(row.getKey()) || !characterIds.containsKey(cell.getKey())) {
                            return;
                        }
                        if (!says.equals(cell.getValue().asString())) {
                            changed.add("the cell '" + row.getKey() + "' × '" + cell.getKey() + "'");
                        } else if (patched.add(key)) {
                            score(byCell, key, is, row.getKey(), cell.getKey(), group.path("fields"));
                        }
                    }));
        }
        byCell.values().forEach(s -> {
            s.set(
                    "row",
                    StringNode.valueOf(rowIds.getOrDefault(
                            s.path("row").asString(), s.path("row").asString())));
            String character = s.path("character").asString();
            s.set("character", StringNode.valueOf(characterIds.getOrDefault(character, character)));
        });
        return Supplement.JSON.createArrayNode().addAll(byCell.values());
    }

    private void score(
            Map<String, ObjectNode> byCell,
            String key,
            @Nullable StudyScore is,
            String row,
            String character,
            JsonNode fields) {
        JsonNode value = fields.path("value");
        if (value.isArray() && value.path(1).isNull()) {
            byCell.remove(key);
            return;
        }
        ObjectNode score = is == null ? Supplement.JSON.createObjectNode() : Supplement.JSON.valueToTree(is);
        score.put("row", row);
        score.put("character", character);
        fields.properties().forEach(f -> score.set(f.getKey(), f.getValue().path(1)));
        byCell.put(key, fields.has("value") ? score : stated(score, character));
    }

    /** A score as the file has it, its states called as they are called now. */
    private ObjectNode stated(ObjectNode score, String character) {
        Map<String, String> ids = stateIds.getOrDefault(character, Map.of());
        for (JsonNode one : score.path("value").path("shown")) {
            if (one instanceof ObjectNode shown) {
                String state = shown.path("state").asString();
                shown.put("state", ids.getOrDefault(state, state));
            }
        }
        return score;
    }
}
