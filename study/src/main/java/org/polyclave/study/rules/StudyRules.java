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
     * A rule that does not hold.
     *
     * @param place {@code row/ID} or {@code character/ID}
     * @param field what of it is wrong, by its name in the study file
     * @param sentence what is wrong and what to do
     */
    public record Violation(String place, String field, String sentence) {}

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
                found.add(
                        new Violation(
                                place(character),
                                "states",
                                "The state '" + state.label()
                                        + "' compares, but with what? Name it here ('longer than the middle lobe'), in the character's comparator, or give a size."));
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
            found.add(new Violation("", "rows", "A study has at most " + Limits.TAXA + " taxa, sexes and stages."));
        }
        Map<String, StudyRow> rows = byId(study.rows(), StudyRow::id);
        Map<String, StudyRow> names = new HashMap<>();
        for (StudyRow row : study.rows()) {
            if (row.label().isBlank()) {
                found.add(new Violation(place(row), "label", "A taxon needs a name."));
            }
            StudyRow same = names.putIfAbsent(folded(row.name()), row);
            if (same != null) {
                found.add(new Violation(
                        place(row),
                        "label",
                        "'" + row.name() + "' and '" + same.name()
                                + "' are one name but for case, accents or spaces. Rename one, or merge them."));
            }
            if (!(row.weight() > 0)) {
                found.add(
                        new Violation(place(row), "weight", "How common '" + row.name() + "' is must be more than 0."));
            }
            checkParent(row, rows, found);
            checkConstant(study, row, found);
            for (String parent : row.hybridOf()) {
                if (parent.equals(row.id()) || !rows.containsKey(parent)) {
                    found.add(new Violation(
                            place(row),
                            "hybridOf",
                            "'" + row.name() + "' cannot be a hybrid of '" + parent
                                    + "'. Choose other taxa of this study."));
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
            if (study.character(id).isEmpty() || !differing.isEmpty()) {
                found.add(new Violation(
                        place(row),
                        "constant",
                        differing.isEmpty()
                                ? "'" + id + "', which is said to be the same in all sexes and stages of '" + row.name()
                                        + "', is not a character of this study."
                                : "'" + study.character(id).orElseThrow().label()
                                        + "' is said to be the same in all sexes, stages and morphs of '" + row.name()
                                        + "', but is scored separately for " + String.join(", ", differing)
                                        + ". Remove one of the two."));
            }
        }
    }

    private static void checkParent(StudyRow row, Map<String, StudyRow> rows, List<Violation> found) {
        if (row.parent() == null) {
            if (row.isSemaphoront()) {
                found.add(new Violation(
                        place(row),
                        "parent",
                        "'" + row.name() + "' is a sex or stage, so it needs the taxon it belongs to."));
            }
            return;
        }
        StudyRow parent = rows.get(row.parent());
        if (parent == null) {
            found.add(new Violation(
                    place(row),
                    "parent",
                    "'" + row.name() + "' has the parent '" + row.parent() + "', which is not a row."));
        } else if (isOwnAncestor(row, rows)) {
            found.add(new Violation(
                    place(row), "parent", "'" + row.name() + "' is its own ancestor. Correct the parents."));
        } else if (parent.isSemaphoront() && !row.isSemaphoront()) {
            found.add(new Violation(
                    place(row),
                    "parent",
                    "'" + row.name() + "' is a taxon and cannot belong to '" + parent.name()
                            + "', which is a sex or stage."));
        } else if (!row.isSemaphoront() && !Ranks.mayContain(parent.rank(), row.rank())) {
            found.add(new Violation(
                    place(row),
                    "rank",
                    "'" + row.name() + "' (" + row.rank() + ") does not rank below its parent '" + parent.name() + "' ("
                            + parent.rank() + "). Correct a rank or the parent."));
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
            found.add(new Violation("", "characters", "A study has at most " + Limits.CHARACTERS + " characters."));
        }
        Map<String, StudyCharacter> characters = byId(study.characters(), StudyCharacter::id);
        Map<String, StudyCharacter> names = new HashMap<>();
        for (StudyCharacter character : study.characters()) {
            String name = character.label();
            if (name.isBlank()) {
                found.add(new Violation(place(character), "label", "A character needs a name."));
            }
            StudyCharacter same = names.putIfAbsent(folded(name), character);
            if (same != null) {
                found.add(new Violation(
                        place(character),
                        "label",
                        "Two characters are called '" + name + "', but for case, accents or spaces. Rename one."));
            }
            if (character.months().stream().anyMatch(m -> m < 1 || m > 12)) {
                found.add(new Violation(
                        place(character), "months", "Months of '" + name + "' are numbers from 1 to 12."));
            }
            if (!(character.effort() >= 0 && character.uncertainty() >= 0)) {
                found.add(new Violation(
                        place(character),
                        "effort",
                        "Effort and reading uncertainty of '" + name + "' are at least 0."));
            }
            if (!isRate(character.misreading())) {
                found.add(new Violation(
                        place(character), "misreading", "The misreading rate of '" + name + "' is from 0 to 50 %."));
            }
            checkTrust(study, character, found);
            if (Units.factor(character.type(), character.unit()).isEmpty()) {
                found.add(new Violation(
                        place(character),
                        "unit",
                        "'" + character.unit() + "' is not a unit of '" + name + "'. Write for example '"
                                + Units.defaultUnit(character.type()) + "'."));
            }
            checkStates(character, found);
            checkRatio(character, characters, found);
            checkConditions(character, characters, found);
        }
        circle(study.characters(), characters)
                .ifPresent(circle -> found.add(new Violation(
                        place(circle.get(0)),
                        "appliesWhen",
                        "These characters depend on one another in a circle: "
                                + circle.stream().map(StudyCharacter::label).collect(Collectors.joining(" → "))
                                + ". Take one dependency out.")));
    }

    private static void checkTrust(Study study, StudyCharacter character, List<Violation> found) {
        StudyCharacter.Trust trust = character.trust();
        String name = "'" + character.label() + "'";
        if (trust.novice() != null && !isRate(trust.novice())) {
            found.add(new Violation(
                    place(character), "trust", "The rate at which novices misread " + name + " is from 0 to 50 %."));
        }
        Set<String> groups = new HashSet<>();
        for (StudyCharacter.InGroup group : trust.groups()) {
            if (study.row(group.row()).isEmpty()) {
                found.add(new Violation(
                        place(character),
                        "trust",
                        "How far " + name + " can be trusted is given for '" + group.row()
                                + "', which is not a taxon. Choose another, or remove it."));
            } else if (!groups.add(group.row())) {
                found.add(new Violation(
                        place(character),
                        "trust",
                        "How far " + name + " can be trusted in '"
                                + study.row(group.row()).orElseThrow().name() + "' is given twice. Keep one."));
            }
            if (!isRate(group.trained()) || (group.novice() != null && !isRate(group.novice()))) {
                found.add(new Violation(
                        place(character),
                        "trust",
                        "The misreading rates of " + name + " in a group are from 0 to 50 %."));
            }
        }
    }

    private static boolean isRate(double rate) {
        return rate >= 0 && rate <= MOST_MISREADING;
    }

    private static void checkStates(StudyCharacter character, List<Violation> found) {
        boolean hasStates = character.type() == CharacterType.STATES || character.type() == CharacterType.ORDERED;
        if (!hasStates && !character.states().isEmpty()) {
            found.add(new Violation(
                    place(character),
                    "states",
                    "'" + character.label() + "' is measured or counted and has no states."));
        }
        if (character.states().size() > Limits.STATES) {
            found.add(new Violation(
                    place(character),
                    "states",
                    "'" + character.label() + "' has more than " + Limits.STATES
                            + " states. Split it into two characters."));
        }
        Map<String, String> labels = new HashMap<>();
        Set<String> ids = new HashSet<>();
        for (StudyCharacter.StudyState state : character.states()) {
            String same = labels.putIfAbsent(folded(state.label()), state.label());
            if (state.label().isBlank()) {
                found.add(new Violation(
                        place(character), "states", "A state of '" + character.label() + "' has no name."));
            } else if (!ids.add(state.id()) || same != null) {
                found.add(new Violation(
                        place(character),
                        "states",
                        "Two states of '" + character.label() + "' are called alike: '"
                                + (same == null ? state.label() : same) + "' and '" + state.label()
                                + "'. Rename one, or merge them."));
            }
            for (String other : state.mistakenFor()) {
                if (other.equals(state.id()) || character.state(other).isEmpty()) {
                    found.add(new Violation(
                            place(character),
                            "states",
                            "'" + state.label() + "' of '" + character.label() + "' cannot be mistaken for '" + other
                                    + "', which is not another of its states."));
                }
            }
            if (!state.swatch().isEmpty() && !state.swatch().matches("#[0-9a-fA-F]{6}")) {
                found.add(new Violation(
                        place(character),
                        "states",
                        "'" + state.swatch() + "' is not a colour. Write it as '#' and six hexadecimal digits."));
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
            found.add(
                    new Violation(
                            place(character),
                            "ratioOf",
                            "'" + character.label()
                                    + "' must be a ratio of two different lengths or counts of this study. Choose both, or none."));
        }
    }

    private static void checkConditions(
            StudyCharacter character, Map<String, StudyCharacter> characters, List<Violation> found) {
        for (StudyCharacter.AppliesWhen condition : character.appliesWhen()) {
            StudyCharacter controller = characters.get(condition.character());
            if (controller == null) {
                found.add(new Violation(
                        place(character),
                        "appliesWhen",
                        "'" + character.label() + "' depends on '" + condition.character()
                                + "', which is not a character of this study."));
                continue;
            }
            if (condition.states().isEmpty()) {
                found.add(new Violation(
                        place(character),
                        "appliesWhen",
                        "'" + character.label() + "' depends on '" + controller.label()
                                + "', but on none of its states. Choose one."));
            }
            for (String state : condition.states()) {
                if (controller.state(state).isEmpty()) {
                    found.add(new Violation(
                            place(character),
                            "appliesWhen",
                            "'" + character.label() + "' depends on the state '" + state + "', which '"
                                    + controller.label() + "' does not have."));
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
