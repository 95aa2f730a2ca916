package org.polyclave.study.rules;

import java.text.Normalizer;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;

/** What must hold in every study. Time linear in rows and characters. */
public final class StudyRules {
    private StudyRules() {}

    private static final Pattern MARKS = Pattern.compile("\\p{M}+");

    private static final Pattern COMPARATIVE = Pattern.compile(
            "(?iU)\\b(larger|bigger|greater|smaller|longer|shorter|taller|wider|broader|narrower|thicker|thinner|fewer|more|less"
                    + "|darker|paler|lighter|brighter|earlier|later|stronger|weaker)\\b");

    private static final Pattern COMPARED = Pattern.compile("(?iU)\\bthan\\b|\\d");

    /**
     * A rule that does not hold. What is wrong and what to do says {@code wording.rule}.
     *
     * @param place {@code row/ID} or {@code character/ID}
     * @param field what of it is wrong, by its name in the study file
     * @param facts what the sentence of the rule names
     */
    public record Violation(String place, String field, Rule rule, Map<String, Object> facts) {
        /** @param facts names and what they stand for, in turn */
        static Violation of(String place, String field, Rule rule, Object... facts) {
            Map<String, Object> named = new HashMap<>();
            for (int k = 0; k < facts.length; k += 2) {
                named.put((String) facts[k], facts[k + 1]);
            }
            return new Violation(place, field, rule, Map.copyOf(named));
        }
    }

    /** All that is wrong with the taxa and characters of a study, in their order. */
    public static List<Violation> check(Study study) {
        List<Violation> found = new ArrayList<>();
        RowRules.check(study, found);
        CharacterRules.check(study, found);
        ReferenceRules.check(study, found);
        SpecimenRules.check(study, found);
        ScopeRules.check(study, found);
        ReadingRules.check(study, found);
        return found;
    }

    /**
     * Labels of states that compare without saying with what. Asked of people at their desk, not of files, whose labels
     * came from elsewhere.
     */
    public static List<Violation> checkWording(StudyCharacter character) {
        List<Violation> found = new ArrayList<>();
        for (StudyCharacter.StudyState state : character.states()) {
            if (character.comparator().isBlank()
                    && COMPARATIVE.matcher(state.label()).find()
                    && !COMPARED.matcher(state.label()).find()) {
                found.add(Violation.of(
                        "character/" + character.id(), "states", Rule.COMPARES_WITH_NOTHING, "state", state.label()));
            }
        }
        return found;
    }

    /** Whether the clauses of a character can be read. */
    public static List<Violation> checkLead(StudyCharacter character) {
        List<Violation> found = new ArrayList<>();
        CharacterRules.checkLead(character, found);
        return found;
    }

    /** Names that people would take for one another: compared without case, accents and spaces. */
    public static String folded(String name) {
        String plain =
                MARKS.matcher(Normalizer.normalize(name, Normalizer.Form.NFKD)).replaceAll("");
        return plain.toLowerCase(Locale.ROOT).replaceAll("\\s+", " ").strip();
    }

    /** Whether a text is a day, a month or a year as ISO 8601 has them; also if it is empty. */
    public static boolean isDate(String text) {
        if (!text.matches("(\\d{4}(-\\d{2}(-\\d{2})?)?)?")) {
            return false;
        }
        try {
            LocalDate.parse(text.isEmpty() ? "2000-01-01" : text + "-01-01".substring(Math.max(0, text.length() - 4)));
            return true;
        } catch (DateTimeParseException none) {
            return false;
        }
    }

    static <T> Map<String, T> byId(List<T> all, Function<T, String> id) {
        Map<String, T> byId = new HashMap<>();
        all.forEach(one -> byId.putIfAbsent(id.apply(one), one));
        return byId;
    }
}
