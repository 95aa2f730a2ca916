package org.polyclave.files.convert;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.polyclave.files.study.StudyFormat;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a file does not hold of a study, found by reading the file back and comparing: nothing is lost silently. Time and
 * memory linear in the study.
 */
public final class FormatLosses {
    private static final JsonMapper JSON = StudyFormat.mapper().build();
    /** How a score was typed is not what it says; the notation is printed from the value. */
    private static final Set<String> NOT_COMPARED = Set.of("typed", "row", "character");

    private final Map<String, Loss> losses = new LinkedHashMap<>();

    /** How often something is lost, and where first. */
    private static final class Loss {
        private final String example;
        private int count;

        Loss(String example) {
            this.example = example;
        }
    }

    private FormatLosses() {}

    /** One sentence a kind of loss; empty if {@code read} holds all of {@code study}. */
    public static List<String> of(Study study, Study read) {
        FormatLosses found = new FormatLosses();
        found.compare(study, read);
        List<String> sentences = new ArrayList<>();
        found.losses.forEach((what, loss) ->
                sentences.add(what + (loss.count > 1 ? ": " + loss.count + " times, first " : ": ") + loss.example));
        return sentences;
    }

    private void lose(String what, String example) {
        losses.computeIfAbsent(what, w -> new Loss(example)).count++;
    }

    private void compare(Study study, Study read) {
        if (!study.scope().equals(read.scope())) {
            lose("scope", "what the study covers, for whom, with what cautions");
        }
        if (!study.title().equals(read.title())) {
            lose("title", "'" + study.title() + "'");
        }
        whole("near but outside", study.nearButOutside(), read.nearButOutside());
        whole("glossary", study.glossary(), read.glossary());
        whole("references", study.references(), read.references());
        whole("claims", study.claims(), read.claims());
        whole("specimens", study.specimens(), read.specimens());
        whole("readings", study.readings(), read.readings());
        parts("taxa", study.rows(), read.rows(), StudyRow::name, StudyRow::name);
        parts("characters", study.characters(), read.characters(), StudyCharacter::label, StudyCharacter::label);
        if (!names(study).equals(names(read))) {
            lose("order of the characters", "measured ones come last");
        }
        scores(study, read);
    }

    private static List<String> names(Study study) {
        return study.characters().stream().map(StudyCharacter::label).toList();
    }

    private void whole(String what, List<?> before, List<?> after) {
        if (!before.equals(after)) {
            lose(what, before.size() + (before.size() == 1 ? " entry" : " entries"));
        }
    }

    private <T> void parts(
            String what, List<T> before, List<T> after, Function<T, String> key, Function<T, String> name) {
        Map<String, T> found = new HashMap<>();
        after.forEach(a -> found.put(key.apply(a), a));
        for (T one : before) {
            T other = found.get(key.apply(one));
            String example = "'" + name.apply(one) + "'";
            if (other == null) {
                lose(what, example);
            } else if (!one.equals(other)) {
                fields(what, JSON.valueToTree(one), JSON.valueToTree(other), example);
            }
        }
    }

    private void fields(String what, JsonNode before, JsonNode after, String example) {
        before.properties().forEach(field -> {
            JsonNode other = after.get(field.getKey());
            if (!NOT_COMPARED.contains(field.getKey()) && !field.getValue().equals(other)) {
                lose(what + ", " + words(field.getKey()), example);
            }
        });
    }

    /** "plainQuestion" as people write it. */
    private static String words(String field) {
        return field.replaceAll("([A-Z])", " $1").toLowerCase(Locale.ROOT);
    }

    private void scores(Study study, Study read) {
        Map<String, String> rowOf = new HashMap<>();
        read.rows().forEach(r -> rowOf.put(r.name(), r.id()));
        Map<String, StudyCharacter> characterOf = new HashMap<>();
        read.characters().forEach(c -> characterOf.put(c.label(), c));
        Map<String, Map<String, StudyScore>> after = read.scoresByRow();
        Map<String, StudyRow> rows = new HashMap<>();
        study.rows().forEach(r -> rows.put(r.id(), r));
        Map<String, StudyCharacter> characters = new HashMap<>();
        study.characters().forEach(c -> characters.put(c.id(), c));
        for (StudyScore score : study.scores()) {
            StudyRow row = java.util.Objects.requireNonNull(rows.get(score.row()));
            StudyCharacter character = java.util.Objects.requireNonNull(characters.get(score.character()));
            StudyCharacter other = characterOf.get(character.label());
            StudyScore kept = other == null
                    ? null
                    : after.getOrDefault(rowOf.getOrDefault(row.name(), ""), Map.of())
                            .get(other.id());
            String example = "'" + row.name() + "' × '" + character.label() + "'";
            String said = NotationPrinter.print(score.value(), character);
            if (kept == null || other == null) {
                lose("scores", example + ", '" + said + "'");
                continue;
            }
            String now = NotationPrinter.print(kept.value(), other);
            if (!now.equals(said)) {
                lose("what scores say", example + ", '" + said + "' becomes '" + now + "'");
            }
            origin(score, kept, example);
        }
    }

    private void origin(StudyScore score, StudyScore kept, String example) {
        lostUnless(score.basis() == kept.basis(), "scores, basis", example);
        lostUnless(score.source().equals(kept.source()), "scores, source", example);
        lostUnless(score.doubtful() == kept.doubtful(), "scores, doubt", example);
        lostUnless(score.note().equals(kept.note()), "scores, note", example);
        lostUnless(score.months().equals(kept.months()), "scores, months of their own", example);
        lostUnless(score.scorer().equals(kept.scorer()), "scores, scorer", example);
        lostUnless(score.date().equals(kept.date()), "scores, date", example);
        lostUnless(score.concept().equals(kept.concept()), "scores, concept", example);
    }

    private void lostUnless(boolean same, String what, String example) {
        if (!same) {
            lose(what, example);
        }
    }
}
