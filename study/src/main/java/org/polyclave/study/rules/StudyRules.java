package org.polyclave.study.rules;

import java.text.Normalizer;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.Units;

/** What must hold of the taxa and characters of every study. Time linear in rows and characters. */
public final class StudyRules {
    private static final Pattern MARKS = Pattern.compile("\\p{M}+");
    private static final Pattern COMPARATIVE = Pattern.compile(
            "(?iU)\\b(larger|bigger|greater|smaller|longer|shorter|taller|wider|broader|narrower|thicker|thinner|fewer|more|less"
                    + "|darker|paler|lighter|brighter|earlier|later|stronger|weaker)\\b");
    private static final Pattern COMPARED = Pattern.compile("(?iU)\\bthan\\b|\\d");
    private static final double MOST_MISREADING = 0.5;

    private StudyRules() {}

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
        checkRows(study, found);
        checkCharacters(study, found);
        ReferenceRules.check(study, found);
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
                found.add(Violation.of(place(character), "states", Rule.COMPARES_WITH_NOTHING, "state", state.label()));
            }
        }
        return found;
    }

    /** Names that people would take for one another: compared without case, accents and spaces. */
    public static String folded(String name) {
        String plain =
                MARKS.matcher(Normalizer.normalize(name, Normalizer.Form.NFKD)).replaceAll("");
        return plain.toLowerCase(Locale.ROOT).replaceAll("\\s+", " ").strip();
    }

    private static String place(StudyRow row) {
        return "row/" + row.id();
    }

    private static String place(StudyCharacter character) {
        return "character/" + character.id();
    }

    private static void checkRows(Study study, List<Violation> found) {
        if (study.rows().size() > Limits.TAXA) {
            found.add(Violation.of("", "rows", Rule.TOO_MANY_ROWS, "most", Limits.TAXA));
        }
        Map<String, StudyRow> rows = byId(study.rows(), StudyRow::id);
        Map<String, StudyRow> names = new HashMap<>();
        for (StudyRow row : study.rows()) {
            if (row.label().isBlank()) {
                found.add(Violation.of(place(row), "label", Rule.ROW_WITHOUT_NAME));
            }
            StudyRow same = names.putIfAbsent(folded(row.name()), row);
            if (same != null) {
                found.add(Violation.of(
                        place(row), "label", Rule.ROWS_OF_ONE_NAME, "row", row.name(), "other", same.name()));
            }
            if (!(row.weight() > 0)) {
                found.add(Violation.of(place(row), "weight", Rule.WEIGHT, "row", row.name()));
            }
            checkParent(row, rows, found);
            checkConstant(study, row, found);
            for (String parent : row.hybridOf()) {
                if (parent.equals(row.id()) || !rows.containsKey(parent)) {
                    found.add(Violation.of(place(row), "hybridOf", Rule.HYBRID, "row", row.name(), "parent", parent));
                }
            }
        }
    }

    /** What is said to be the same in all sexes, stages and morphs of a taxon must not differ in one of them. */
    private static void checkConstant(Study study, StudyRow row, List<Violation> found) {
        for (String id : row.constant()) {
            List<String> differing = study.character(id).isEmpty()
                    ? List.of()
                    : study.scores().stream()
                            .filter(s -> s.character().equals(id))
                            .filter(s -> study.row(s.row())
                                    .filter(r -> r.isSemaphoront() && row.id().equals(r.parent()))
                                    .isPresent())
                            .filter(s -> !(s.value() instanceof ScoreValue.Unknown))
                            .map(s -> study.row(s.row()).orElseThrow().name())
                            .toList();
            if (study.character(id).isEmpty()) {
                found.add(Violation.of(
                        place(row), "constant", Rule.CONSTANT_UNKNOWN, "character", id, "row", row.name()));
            } else if (!differing.isEmpty()) {
                found.add(Violation.of(
                        place(row),
                        "constant",
                        Rule.CONSTANT_DIFFERS,
                        "character",
                        study.character(id).orElseThrow().label(),
                        "row",
                        row.name(),
                        "rows",
                        differing));
            }
        }
    }

    private static void checkParent(StudyRow row, Map<String, StudyRow> rows, List<Violation> found) {
        if (row.parent() == null) {
            if (row.isSemaphoront()) {
                found.add(Violation.of(place(row), "parent", Rule.STAGE_WITHOUT_TAXON, "row", row.name()));
            }
            return;
        }
        StudyRow parent = rows.get(row.parent());
        if (parent == null) {
            found.add(
                    Violation.of(place(row), "parent", Rule.UNKNOWN_PARENT, "row", row.name(), "parent", row.parent()));
        } else if (isOwnAncestor(row, rows)) {
            found.add(Violation.of(place(row), "parent", Rule.OWN_ANCESTOR, "row", row.name()));
        } else if (parent.isSemaphoront() && !row.isSemaphoront()) {
            found.add(Violation.of(
                    place(row), "parent", Rule.TAXON_BELOW_STAGE, "row", row.name(), "parent", parent.name()));
        } else if (!row.isSemaphoront() && !Ranks.mayContain(parent.rank(), row.rank())) {
            found.add(Violation.of(
                    place(row),
                    "rank",
                    Rule.RANK,
                    "row",
                    row.name(),
                    "rank",
                    row.rank(),
                    "parent",
                    parent.name(),
                    "parentRank",
                    parent.rank()));
        }
    }

    private static boolean isOwnAncestor(StudyRow row, Map<String, StudyRow> rows) {
        Set<String> passed = new HashSet<>();
        @Nullable StudyRow at = row;
        while (at != null && passed.add(at.id())) {
            at = at.parent() == null ? null : rows.get(at.parent());
            if (at != null && at.id().equals(row.id())) {
                return true;
            }
        }
        return false;
    }

    private static void checkCharacters(Study study, List<Violation> found) {
        if (study.characters().size() > Limits.CHARACTERS) {
            found.add(Violation.of("", "characters", Rule.TOO_MANY_CHARACTERS, "most", Limits.CHARACTERS));
        }
        Map<String, StudyCharacter> characters = byId(study.characters(), StudyCharacter::id);
        Map<String, StudyCharacter> names = new HashMap<>();
        for (StudyCharacter character : study.characters()) {
            String name = character.label();
            if (name.isBlank()) {
                found.add(Violation.of(place(character), "label", Rule.CHARACTER_WITHOUT_NAME));
            }
            StudyCharacter same = names.putIfAbsent(folded(name), character);
            if (same != null) {
                found.add(Violation.of(place(character), "label", Rule.CHARACTERS_OF_ONE_NAME, "character", name));
            }
            if (character.months().stream().anyMatch(m -> m < 1 || m > 12)) {
                found.add(Violation.of(place(character), "months", Rule.MONTHS, "character", name));
            }
            if (!(character.effort() >= 0 && character.uncertainty() >= 0)) {
                found.add(Violation.of(place(character), "effort", Rule.EFFORT, "character", name));
            }
            if (!isRate(character.misreading())) {
                found.add(Violation.of(place(character), "misreading", Rule.MISREADING, "character", name));
            }
            checkTrust(study, character, found);
            if (Units.factor(character.type(), character.unit()).isEmpty()) {
                found.add(Violation.of(
                        place(character),
                        "unit",
                        Rule.UNIT,
                        "unit",
                        character.unit(),
                        "character",
                        name,
                        "example",
                        Units.defaultUnit(character.type())));
            }
            checkStates(character, found);
            checkRatio(character, characters, found);
            checkConditions(character, characters, found);
        }
        circle(study.characters(), characters)
                .ifPresent(circle -> found.add(Violation.of(
                        place(circle.get(0)),
                        "appliesWhen",
                        Rule.CIRCLE,
                        "characters",
                        circle.stream().map(StudyCharacter::label).collect(Collectors.joining(" → ")))));
    }

    private static void checkTrust(Study study, StudyCharacter character, List<Violation> found) {
        StudyCharacter.Trust trust = character.trust();
        String name = character.label();
        if (trust.novice() != null && !isRate(trust.novice())) {
            found.add(Violation.of(place(character), "trust", Rule.NOVICE_RATE, "character", name));
        }
        Set<String> groups = new HashSet<>();
        for (StudyCharacter.InGroup group : trust.groups()) {
            if (study.row(group.row()).isEmpty()) {
                found.add(Violation.of(
                        place(character), "trust", Rule.TRUST_OF_NO_TAXON, "character", name, "row", group.row()));
            } else if (!groups.add(group.row())) {
                found.add(Violation.of(
                        place(character),
                        "trust",
                        Rule.TRUST_TWICE,
                        "character",
                        name,
                        "row",
                        study.row(group.row()).orElseThrow().name()));
            }
            if (!isRate(group.trained()) || (group.novice() != null && !isRate(group.novice()))) {
                found.add(Violation.of(place(character), "trust", Rule.GROUP_RATE, "character", name));
            }
        }
    }

    private static boolean isRate(double rate) {
        return rate >= 0 && rate <= MOST_MISREADING;
    }

    private static void checkStates(StudyCharacter character, List<Violation> found) {
        boolean hasStates = character.type() == CharacterType.STATES || character.type() == CharacterType.ORDERED;
        if (!hasStates && !character.states().isEmpty()) {
            found.add(Violation.of(place(character), "states", Rule.STATES_OF_NUMBER, "character", character.label()));
        }
        if (character.states().size() > Limits.STATES) {
            found.add(Violation.of(
                    place(character),
                    "states",
                    Rule.TOO_MANY_STATES,
                    "character",
                    character.label(),
                    "most",
                    Limits.STATES));
        }
        Map<String, String> labels = new HashMap<>();
        Set<String> ids = new HashSet<>();
        for (StudyCharacter.StudyState state : character.states()) {
            String same = labels.putIfAbsent(folded(state.label()), state.label());
            if (state.label().isBlank()) {
                found.add(Violation.of(
                        place(character), "states", Rule.STATE_WITHOUT_NAME, "character", character.label()));
            } else if (!ids.add(state.id()) || same != null) {
                found.add(Violation.of(
                        place(character),
                        "states",
                        Rule.STATES_OF_ONE_NAME,
                        "character",
                        character.label(),
                        "first",
                        same == null ? state.label() : same,
                        "second",
                        state.label()));
            }
            for (String other : state.mistakenFor()) {
                if (other.equals(state.id()) || character.state(other).isEmpty()) {
                    found.add(Violation.of(
                            place(character),
                            "states",
                            Rule.MISTAKEN_FOR,
                            "state",
                            state.label(),
                            "character",
                            character.label(),
                            "other",
                            other));
                }
            }
            if (!state.swatch().isEmpty() && !state.swatch().matches("#[0-9a-fA-F]{6}")) {
                found.add(Violation.of(place(character), "states", Rule.COLOUR, "colour", state.swatch()));
            }
        }
    }

    private static void checkRatio(
            StudyCharacter character, Map<String, StudyCharacter> characters, List<Violation> found) {
        if (character.ratioOf().isEmpty()) {
            return;
        }
        boolean two = character.type() == CharacterType.RATIO
                && character.ratioOf().size() == 2
                && !character.ratioOf().get(0).equals(character.ratioOf().get(1));
        boolean measured = character.ratioOf().stream()
                .map(characters::get)
                .allMatch(part ->
                        part != null && (part.type() == CharacterType.LENGTH || part.type() == CharacterType.COUNT));
        if (!two || !measured) {
            found.add(Violation.of(place(character), "ratioOf", Rule.RATIO, "character", character.label()));
        }
    }

    private static void checkConditions(
            StudyCharacter character, Map<String, StudyCharacter> characters, List<Violation> found) {
        for (StudyCharacter.AppliesWhen condition : character.appliesWhen()) {
            StudyCharacter controller = characters.get(condition.character());
            if (controller == null) {
                found.add(Violation.of(
                        place(character),
                        "appliesWhen",
                        Rule.DEPENDS_ON_NOTHING,
                        "character",
                        character.label(),
                        "controller",
                        condition.character()));
                continue;
            }
            if (condition.states().isEmpty()) {
                found.add(Violation.of(
                        place(character),
                        "appliesWhen",
                        Rule.DEPENDS_ON_NO_STATE,
                        "character",
                        character.label(),
                        "controller",
                        controller.label()));
            }
            for (String state : condition.states()) {
                if (controller.state(state).isEmpty()) {
                    found.add(Violation.of(
                            place(character),
                            "appliesWhen",
                            Rule.DEPENDS_ON_UNKNOWN_STATE,
                            "character",
                            character.label(),
                            "state",
                            state,
                            "controller",
                            controller.label()));
                }
            }
        }
    }

    /** Characters that depend on one another in a circle, the first of them again at the end. */
    private static java.util.Optional<List<StudyCharacter>> circle(
            List<StudyCharacter> all, Map<String, StudyCharacter> characters) {
        Set<String> clear = new HashSet<>();
        for (StudyCharacter start : all) {
            List<StudyCharacter> path = new ArrayList<>();
            List<StudyCharacter> circle = walk(start, characters, path, clear);
            if (circle != null) {
                return java.util.Optional.of(circle);
            }
        }
        return java.util.Optional.empty();
    }

    private static @Nullable List<StudyCharacter> walk(
            StudyCharacter at, Map<String, StudyCharacter> characters, List<StudyCharacter> path, Set<String> clear) {
        int before = path.indexOf(at);
        path.add(at);
        if (before >= 0) {
            return List.copyOf(path.subList(before, path.size()));
        }
        if (!clear.contains(at.id())) {
            for (StudyCharacter.AppliesWhen condition : at.appliesWhen()) {
                StudyCharacter next = characters.get(condition.character());
                List<StudyCharacter> circle = next == null ? null : walk(next, characters, path, clear);
                if (circle != null) {
                    return circle;
                }
            }
            clear.add(at.id());
        }
        path.remove(path.size() - 1);
        return null;
    }

    private static <T> Map<String, T> byId(List<T> all, Function<T, String> id) {
        Map<String, T> byId = new HashMap<>();
        all.forEach(one -> byId.putIfAbsent(id.apply(one), one));
        return byId;
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
}
