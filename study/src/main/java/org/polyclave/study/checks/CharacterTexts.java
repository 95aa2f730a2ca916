package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import org.polyclave.study.model.StudyCharacter;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The texts of a character that readers read: of itself, of how to look, and of its states. */
final class CharacterTexts {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    /** Names of fields that hold text in words, of the character as of its parts. */
    private static final List<String> FIELDS =
            List.of("label", "question", "plainQuestion", "note", "pitfalls", "plain", "definition");

    private CharacterTexts() {}

    static List<String> of(StudyCharacter character) {
        List<String> texts = new ArrayList<>();
        changed(character, text -> {
            texts.add(text);
            return text;
        });
        return texts;
    }

    static StudyCharacter changed(StudyCharacter character, UnaryOperator<String> change) {
        ObjectNode tree = JSON.valueToTree(character);
        change(tree, change);
        change(tree.path("looking"), change);
        tree.path("states").forEach(state -> change(state, change));
        return JSON.treeToValue(tree, StudyCharacter.class);
    }

    private static void change(JsonNode node, UnaryOperator<String> change) {
        for (String name : FIELDS) {
            if (node.path(name).isString()) {
                ((ObjectNode) node).put(name, change.apply(node.path(name).asString()));
            }
        }
    }
}
