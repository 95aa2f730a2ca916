package org.polyclave.files.convert;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.study.StudyFormat;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;
import tools.jackson.core.json.JsonWriteFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * What a table or NEXUS file cannot say of a study, as JSON that travels in it. Reading both gives the study back without
 * loss. Of each thing that differs stand the value that the plain file gives and the true one, so that {@link Supplemented}
 * can tell what was changed in the file since. Time and memory linear in the study.
 */
final class Supplement {
    /** ASCII, so that no program that handles the file on its way can harm it. */
    static final JsonMapper JSON =
            StudyFormat.mapper().enable(JsonWriteFeature.ESCAPE_NON_ASCII).build();

    /** Parts of a study that no plain file holds as single things. */
    static final List<String> WHOLE = List.of(
            "slug",
            "title",
            "scope",
            "nearButOutside",
            "glossary",
            "references",
            "claims",
            "pictures",
            "opinions",
            "specimens",
            "readings");

    /** Read from a plain file, a study is called after the file, whatever that is called by now. */
    static final List<String> FROM_FILE_NAME = List.of("slug", "title");

    /** Told by where a score stands. */
    private static final Set<String> PLACE = Set.of("row", "character");

    private final Study study;
    private final Study read;
    private final Map<String, StudyRow> readRows;
    private final Map<String, StudyCharacter> readCharacters;

    private Supplement(Study study, Study read) {
        this.study = study;
        this.read = read;
        readRows = by(read.rows(), StudyRow::name);
        readCharacters = by(read.characters(), StudyCharacter::label);
    }

    /** @param read what the plain file of {@code study} is read as */
    static String between(Study study, Study read) {
        return JSON.writeValueAsString(new Supplement(study, read).compose());
    }

    static <T> Map<String, T> by(List<T> things, Function<T, String> key) {
        return things.stream().collect(Collectors.toMap(key, Function.identity(), (first, second) -> first));
    }

    private ObjectNode compose() {
        ObjectNode all = JSON.createObjectNode();
        all.put("version", 1);
        JsonNode before = JSON.valueToTree(read.withScores(List.of()));
        JsonNode now = JSON.valueToTree(study.withScores(List.of()));
        ObjectNode whole = all.putObject("study");
        FROM_FILE_NAME.forEach(name -> whole.putArray(name).addNull().add(now.get(name)));
        WHOLE.forEach(name -> difference(whole, name, before.get(name), now.get(name)));
        ArrayNode rows = all.putArray("rows");
        study.rows().forEach(r -> rows.add(part(r, readRows.get(r.name()), StudyRow::id)));
        ArrayNode characters = all.putArray("characters");
        study.characters().forEach(c -> characters.add(part(c, readCharacters.get(c.label()), StudyCharacter::id)));
        all.set("scores", scores());
        return all;
    }

    /** Adds {@code [was, is]} where the two differ. */
    private static void difference(ObjectNode to, String name, @Nullable JsonNode was, @Nullable JsonNode is) {
        if (!same(was, is)) {
            ArrayNode pair = to.putArray(name);
            pair.add(was);
            pair.add(is);
        }
    }

    /** A field that is missing is one that says nothing. */
    static boolean same(@Nullable JsonNode a, @Nullable JsonNode b) {
        if (a == null || a.isNull()) {
            return b == null || b.isNull();
        }
        return a.equals(b);
    }

    private static ObjectNode differences(@Nullable JsonNode was, @Nullable JsonNode is) {
        ObjectNode fields = JSON.createObjectNode();
        Set<String> names = new LinkedHashSet<>();
        if (was != null) {
            names.addAll(was.propertyNames());
        }
        if (is != null) {
            names.addAll(is.propertyNames());
        }
        names.removeAll(PLACE);
        names.forEach(
                name -> difference(fields, name, was == null ? null : was.get(name), is == null ? null : is.get(name)));
        return fields;
    }

    private static <T> ObjectNode part(T one, @Nullable T as, Function<T, String> id) {
        ObjectNode part = JSON.createObjectNode();
        part.put("as", as == null ? null : id.apply(as));
        part.set("fields", differences(as == null ? null : JSON.valueToTree(as), JSON.valueToTree(one)));
        return part;
    }

    /** Cells that differ in the same way stand together: by their difference, then by row and character with what they say. */
    private ArrayNode scores() {
        Map<ObjectNode, Map<String, Map<String, String>>> groups = new LinkedHashMap<>();
        Map<String, Map<String, StudyScore>> before = read.scoresByRow();
        Map<String, Map<String, StudyScore>> now = study.scoresByRow();
        for (StudyRow row : study.rows()) {
            StudyRow readRow = readRows.get(row.name());
            for (StudyCharacter character : study.characters()) {
                StudyCharacter readCharacter = readCharacters.get(character.label());
                StudyScore is = of(now, row.id(), character.id());
                String asRow = readRow == null ? row.id() : readRow.id();
                String asCharacter = readCharacter == null ? character.id() : readCharacter.id();
                StudyScore was = of(before, asRow, asCharacter);
                if (is == null && was == null) {
                    continue;
                }
                ObjectNode fields = differences(
                        was == null ? null : JSON.valueToTree(was), is == null ? null : JSON.valueToTree(is));
                if (!fields.isEmpty()) {
                    groups.computeIfAbsent(fields, f -> new LinkedHashMap<>())
                            .computeIfAbsent(asRow, r -> new LinkedHashMap<>())
                            .put(asCharacter, text(was, readCharacter));
                }
            }
        }
        ArrayNode scores = JSON.createArrayNode();
        groups.forEach((fields, cells) -> {
            ObjectNode group = scores.addObject();
            group.set("fields", fields);
            group.set("cells", JSON.valueToTree(cells));
        });
        return scores;
    }

    private static @Nullable StudyScore of(Map<String, Map<String, StudyScore>> scores, String row, String character) {
        return scores.getOrDefault(row, Map.of()).get(character);
    }

    /** What a cell of a plain file says; nothing for one that is empty. */
    static String text(@Nullable StudyScore score, @Nullable StudyCharacter character) {
        return score == null || character == null ? "" : NotationPrinter.print(score.value(), character);
    }
}
