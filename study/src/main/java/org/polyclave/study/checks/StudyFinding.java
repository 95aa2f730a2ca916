package org.polyclave.study.checks;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Something in a study that may be a slip or a gap. It has no sentence of its own: {@code wording.finding} makes one of the
 * kind and the facts.
 *
 * @param row id of the row it is about, or empty
 * @param character id of the character, or empty
 * @param other id of another row, character or state that it is about, or the word in question; may be empty
 * @param facts what the sentence of the kind names: a text, a number, names, or groups of such facts
 */
public record StudyFinding(FindingKind kind, String row, String character, String other, Map<String, Object> facts) {
    public StudyFinding {
        facts = Map.copyOf(facts);
    }

    static StudyFinding of(FindingKind kind, String row, String character) {
        return of(kind, row, character, "");
    }

    static StudyFinding of(FindingKind kind, String row, String character, String other) {
        return new StudyFinding(kind, row, character, other, Map.of());
    }

    StudyFinding with(String fact, String text) {
        return plus(fact, text);
    }

    StudyFinding with(String fact, double number) {
        return plus(fact, number);
    }

    StudyFinding with(String fact, List<String> names) {
        return plus(fact, List.copyOf(names));
    }

    StudyFinding withEach(String fact, List<Map<String, Object>> groups) {
        return plus(fact, List.copyOf(groups));
    }

    private StudyFinding plus(String fact, Object value) {
        Map<String, Object> more = new LinkedHashMap<>(facts);
        more.put(fact, value);
        return new StudyFinding(kind, row, character, other, more);
    }

    /** A name that stays the same as long as the finding is about the same thing. */
    public String key() {
        return String.join("/", kind.code(), row, character, other);
    }

    /** What stands for {@link #other} once {@link Correction} is done; empty where nothing is certain. */
    public String correction() {
        return facts.get("right") instanceof String right ? right : "";
    }
}
