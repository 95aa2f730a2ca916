package org.polyclave.files.study;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.ScoreRules;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.rule.RuleWording;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The study file: a whole study without loss, one line an object so that it differs well in version control. */
public final class StudyJson {
    private static final JsonMapper JSON = StudyFormat.mapper()
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .build();

    private StudyJson() {}

    /** A study that was read, or sentences that say what is wrong. */
    public record ReadStudy(@Nullable Study study, List<String> problems) {}

    public static String write(Study study) {
        StringBuilder out = new StringBuilder("{\n");
        out.append("  \"format\": \"polyclave-study\",\n  \"version\": " + StudyFormat.VERSION + ",\n");
        field(out, "slug", study.slug());
        field(out, "title", study.title());
        field(out, "scope", study.scope());
        lines(out, "rows", study.rows(), false);
        lines(out, "nearButOutside", study.nearButOutside(), false);
        lines(out, "characters", study.characters(), false);
        optional(out, "glossary", study.glossary());
        optional(out, "references", study.references());
        optional(out, "claims", study.claims());
        optional(out, "pictures", study.pictures());
        optional(out, "opinions", study.opinions());
        optional(out, "specimens", study.specimens());
        optional(out, "readings", study.readings());
        lines(out, "scores", study.scores(), true);
        return out.append("}\n").toString();
    }

    private static void field(StringBuilder out, String name, Object value) {
        out.append("  \"")
                .append(name)
                .append("\": ")
                .append(JSON.writeValueAsString(value))
                .append(",\n");
    }

    /** Parts that older readers of version 1 do not know are written where there is something to say. */
    private static void optional(StringBuilder out, String name, List<?> values) {
        if (!values.isEmpty()) {
            lines(out, name, values, false);
        }
    }

    private static void lines(StringBuilder out, String name, List<?> values, boolean last) {
        out.append("  \"").append(name).append("\": [");
        for (int i = 0; i < values.size(); i++) {
            out.append(i == 0 ? "\n    " : ",\n    ").append(JSON.writeValueAsString(values.get(i)));
        }
        out.append(values.isEmpty() ? "]" : "\n  ]").append(last ? "\n" : ",\n");
    }

    public static ReadStudy read(byte[] bytes) {
        if (bytes.length > Limits.STUDY_BYTES) {
            return new ReadStudy(null, List.of("The study file is larger than 256 MB."));
        }
        try {
            return read(JSON.readTree(bytes), StudyUpgrades.ALL);
        } catch (JacksonException broken) {
            return new ReadStudy(
                    null, List.of("The file cannot be read as a study: " + broken.getOriginalMessage() + "."));
        }
    }

    /**
     * Reads what was written of a study of this installation. It may say whatever its editors could do, also what a file that comes
     * from elsewhere may not: then checks say so, and nothing is refused.
     *
     * @throws JacksonException if it is no study at all
     */
    public static Study readOwn(String document) {
        ObjectNode root = (ObjectNode) JSON.readTree(document);
        ObjectNode study = StudyUpgrades.ALL.study(root.path("version").asInt(1), root);
        return JSON.treeToValue(study.remove(List.of("format", "version")), Study.class);
    }

    /** Reads a tree, and changes it on the way. */
    static ReadStudy read(JsonNode root, StudyUpgrades upgrades) {
        int version = root.path("version").asInt(0);
        if (version > upgrades.current()) {
            return new ReadStudy(
                    null,
                    List.of(String.format(
                            Locale.ROOT,
                            "This study file has version %d of the format, which only a newer Polyclave reads; this one reads"
                                    + " versions up to %d. Update Polyclave, or ask for the study as a table.",
                            version,
                            upgrades.current())));
        }
        if (version > 0 && root instanceof ObjectNode older) {
            upgrades.study(version, older).put("version", upgrades.current());
        }
        List<String> problems = StudySchema.validate(root);
        if (!problems.isEmpty()) {
            return new ReadStudy(null, problems);
        }
        Study study = JSON.treeToValue(((ObjectNode) root).remove(List.of("format", "version")), Study.class);
        problems = inconsistencies(study);
        return new ReadStudy(problems.isEmpty() ? study : null, problems);
    }

    /** What a schema cannot say: references that lead nowhere, names that stand twice. */
    static List<String> inconsistencies(Study study) {
        List<String> problems = new ArrayList<>();
        Set<String> rows = new HashSet<>();
        study.rows().forEach(r -> unique(rows, r.id(), "row", problems));
        Set<String> characters = new HashSet<>();
        study.characters().forEach(c -> unique(characters, c.id(), "character", problems));
        StudyRules.check(study).forEach(v -> problems.add(RuleWording.sentence(v)));
        Map<String, StudyCharacter> byId = new HashMap<>();
        study.characters().forEach(c -> byId.put(c.id(), c));
        Set<String> cells = new HashSet<>();
        for (StudyScore score : study.scores()) {
            unique(cells, score.row() + " × " + score.character(), "score", problems);
            if (score.months().stream().anyMatch(m -> m < 1 || m > 12)) {
                problems.add("Months of the score of '" + score.row() + "' are numbers from 1 to 12.");
            }
            if (!rows.contains(score.row())) {
                problems.add("A score names the row '" + score.row() + "', which does not exist.");
            }
            StudyCharacter character = byId.get(score.character());
            if (character == null) {
                problems.add("A score names the character '" + score.character() + "', which does not exist.");
            } else if (!ScoreRules.fits(score.value(), character)) {
                problems.add("The score of '" + score.row() + "' does not fit the character '" + character.id() + "'.");
            }
        }
        return problems;
    }

    private static void unique(Set<String> seen, String id, String kind, List<String> problems) {
        if (!seen.add(id)) {
            problems.add("The " + kind + " '" + id + "' occurs twice.");
        }
    }
}
