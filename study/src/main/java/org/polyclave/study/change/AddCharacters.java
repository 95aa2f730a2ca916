package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.TypeGuess;
import org.polyclave.study.notation.UnitHeading;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.StudyRules;

/**
 * Adds characters by a list, one a line, as people jot them down: {@code leaf margin: toothed, entire}; {@code size: small < large}
 * is a graded series; {@code leaf length (mm)}, {@code petals: count} and {@code flowering: months} hold numbers and months. A
 * character without states is there or not. A line that ends in a colon names the part that those below it are of. Characters
 * that are there already are left out, so that a longer list can be given again.
 */
public record AddCharacters(List<String> lines) implements StudyOperation {
    private static final int LONGEST = 200;
    /** Words for types beside their own names. */
    private static final Map<String, CharacterType> WORDS =
            Map.of("number", CharacterType.COUNT, "weight", CharacterType.MASS);
    /** What divides states: the first of these that a line holds. */
    private static final List<String> BETWEEN = List.of("|", "\t", ";", ",", "/");

    private static final Pattern GRADED = Pattern.compile("\\s*<\\s*");

    public AddCharacters {
        lines = List.copyOf(lines);
    }

    @Override
    public Study apply(Study study) {
        List<StudyCharacter> characters = new ArrayList<>(study.characters());
        Set<String> names =
                characters.stream().map(c -> StudyRules.folded(c.label())).collect(Collectors.toSet());
        Set<String> taken = characters.stream().map(StudyCharacter::id).collect(Collectors.toSet());
        String part = "";
        for (String line : lines) {
            String text = line.strip();
            if (text.endsWith(":")) {
                part = text.substring(0, text.length() - 1).strip().toLowerCase(Locale.ROOT);
                continue;
            }
            if (text.isEmpty()) {
                continue;
            }
            StudyCharacter character = character(text, part);
            if (names.add(StudyRules.folded(character.label()))) {
                characters.add(character
                        .with()
                        .id(Slug.unused(Slug.of(character.label(), "character"), i -> !taken.add(i)))
                        .build());
            }
        }
        if (characters.size() > Limits.CHARACTERS) {
            throw new Refused("A study has at most " + Limits.CHARACTERS + " characters.");
        }
        return study.withCharacters(characters);
    }

    private static StudyCharacter character(String text, String part) {
        int colon = text.indexOf(':');
        int tab = text.indexOf('\t');
        int end = colon < 0 ? tab : tab < 0 ? colon : Math.min(colon, tab);
        String heading = end < 0 ? text : text.substring(0, end).strip();
        String rest = end < 0 ? "" : text.substring(end + 1).strip();
        if (heading.isEmpty() || heading.length() > LONGEST) {
            throw new Refused(
                    "'" + shortened(text) + "' has no name, or one that is too long. Write the name before the colon.");
        }
        Optional<UnitHeading> headed = UnitHeading.parse(heading);
        String label = headed.map(UnitHeading::label).orElse(heading);
        StudyCharacter character = typed(label, rest, headed);
        return character.with().organ(part.isEmpty() ? character.organ() : part).build();
    }

    private static StudyCharacter typed(String label, String rest, Optional<UnitHeading> headed) {
        Optional<CharacterType> unit = Units.typeOf(rest);
        CharacterType named = type(rest);
        if (unit.isPresent()) {
            return StudyCharacter.of(label, unit.get(), List.of()).withType(unit.get(), Units.usual(rest));
        }
        if (headed.isPresent() && (rest.isEmpty() || named == headed.get().type())) {
            return StudyCharacter.of(label, headed.get().type(), List.of())
                    .withType(headed.get().type(), headed.get().unit());
        }
        if (named != null) {
            return StudyCharacter.of(label, named, List.of()).withType(named, Units.defaultUnit(named));
        }
        if (!rest.isEmpty()) {
            return states(label, rest);
        }
        TypeGuess.Guess guess = TypeGuess.of(label, List.of("1", "2"));
        if (guess.open()) {
            throw new Refused("In which unit is '" + label + "'? Write it behind the name: '" + label + " ("
                    + Units.defaultUnit(guess.type()) + ")'.");
        }
        return states(label, "absent|present");
    }

    /** A type that is not made of states, by its name. */
    private static @Nullable CharacterType type(String word) {
        return Stream.of(CharacterType.values())
                .filter(t -> t != CharacterType.STATES && t != CharacterType.ORDERED)
                .filter(t -> t.name().equalsIgnoreCase(word))
                .findFirst()
                .orElse(WORDS.get(word.toLowerCase(Locale.ROOT)));
    }

    private static StudyCharacter states(String label, String rest) {
        boolean graded = rest.contains("<");
        String between = BETWEEN.stream().filter(rest::contains).findFirst().orElse("|");
        List<StudyState> states = (graded ? GRADED.splitAsStream(rest) : Stream.of(rest.split(Pattern.quote(between))))
                .map(String::strip)
                .filter(s -> !s.isEmpty())
                .map(StudyState::of)
                .toList();
        Set<String> seen = new HashSet<>();
        for (StudyState state : states) {
            if (state.id().isEmpty() || !seen.add(state.id())) {
                throw new Refused("The states of '" + label + "' need names that differ: '" + state.label()
                        + "' is named twice, or has no letters.");
            }
        }
        if (states.size() < 2 || states.size() > Limits.STATES) {
            throw new Refused("'" + label + "' has " + states.size() + (states.size() == 1 ? " state" : " states")
                    + ". Name 2 to " + Limits.STATES + ", divided by commas, or a unit or type.");
        }
        return StudyCharacter.of(label, graded ? CharacterType.ORDERED : CharacterType.STATES, states);
    }

    private static String shortened(String text) {
        return text.length() > 40 ? text.substring(0, 40) + "…" : text;
    }
}
