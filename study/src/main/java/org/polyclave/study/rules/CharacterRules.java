package org.polyclave.study.rules;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.LeadNotation;
import org.polyclave.study.rules.StudyRules.Violation;

/** What must hold of characters. */
final class CharacterRules {
    private CharacterRules() {}

    private static final double MOST_MISREADING = 0.5;

    static void check(Study study, List<Violation> found) {
        if (study.characters().size() > Limits.CHARACTERS) {
            found.add(Violation.of("", "characters", Rule.TOO_MANY_CHARACTERS, "most", Limits.CHARACTERS));
        }
        Map<String, StudyCharacter> characters = StudyRules.byId(study.characters(), StudyCharacter::id);
        Map<String, StudyCharacter> names = new HashMap<>();
        for (StudyCharacter character : study.characters()) {
            String name = character.label();
            if (name.isBlank()) {
                found.add(Violation.of(place(character), "label", Rule.CHARACTER_WITHOUT_NAME));
            }
            StudyCharacter same = names.putIfAbsent(StudyRules.folded(name), character);
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
            Double seenOn = character.use().seenOn();
            if (seenOn != null && !(seenOn > 0 && seenOn <= 1)) {
                found.add(Violation.of(place(character), "use", Rule.SEEN_ON, "character", name));
            }
            checkLead(character, found);
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

    static void checkLead(StudyCharacter character, List<Violation> found) {
        for (String pattern :
                List.of(character.lead().technical(), character.lead().plain())) {
            if (!pattern.isEmpty() && !LeadNotation.isReadable(pattern, character.type())) {
                found.add(Violation.of(
                        place(character),
                        "lead",
                        Rule.LEAD_PATTERN,
                        "character",
                        character.label(),
                        "pattern",
                        pattern,
                        "example",
                        LeadNotation.example(character.type())));
            }
        }
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
            String same = labels.putIfAbsent(StudyRules.folded(state.label()), state.label());
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

    private static String place(StudyCharacter character) {
        return "character/" + character.id();
    }
}
