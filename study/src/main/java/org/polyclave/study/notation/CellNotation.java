package org.polyclave.study.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.ScoreValue.Combination;
import org.polyclave.study.model.ScoreValue.Frequency;
import org.polyclave.study.model.ScoreValue.Shown;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;

/** Reads a cell as it is typed in the grid and in tables. */
public final class CellNotation {
    private CellNotation() {}

    /** What a text means, or why it means nothing. */
    public sealed interface ParseResult {}

    public record Parsed(ScoreValue value) implements ParseResult {}

    /**
     * @param reason one sentence with the remedy
     * @param nearest states that come closest
     */
    public record Rejected(String reason, List<String> nearest) implements ParseResult {}

    /** What the texts mean that read alike in every character; a lone dash is the trade's commonest "not applicable". */
    private static final Map<String, ScoreValue> SPECIAL = Map.of(
            "?", new ScoreValue.Unknown(),
            "n/a", new ScoreValue.NotApplicable(),
            "na", new ScoreValue.NotApplicable(),
            "-", new ScoreValue.NotApplicable(),
            "--", new ScoreValue.NotApplicable(),
            "–", new ScoreValue.NotApplicable(),
            "—", new ScoreValue.NotApplicable(),
            "−", new ScoreValue.NotApplicable(),
            "any", new ScoreValue.Any());

    /** Whether a text means the same in every character, so that it tells nothing of a character's type or states. */
    public static boolean isSpecial(String text) {
        return SPECIAL.containsKey(text.strip().toLowerCase(Locale.ROOT));
    }

    /** Whether the counts of a range, if it lists them, are such as could be typed, and span it. */
    public static boolean isConsistent(ScoreValue.Range range) {
        return CountNotation.isConsistent(range);
    }

    /** Reads a text that is not blank. */
    public static ParseResult parse(String text, StudyCharacter character) {
        String trimmed = text.strip();
        ScoreValue special = SPECIAL.get(trimmed.toLowerCase(Locale.ROOT));
        // A state may be called like one of them: "+" and "-" of a test, "NA" of a chart.
        boolean isLabel = special != null
                && character.states().stream().anyMatch(s -> s.label().equalsIgnoreCase(trimmed));
        if (special != null && !isLabel) {
            return new Parsed(special);
        }
        Optional<Rejected> date = DateInCell.rejected(trimmed);
        if (date.isPresent() && StateNames.match(trimmed, character).isEmpty()) {
            return date.get();
        }
        if (character.type() == CharacterType.MONTHS) {
            return MonthNotation.parse(trimmed);
        }
        return character.type().isNumeric()
                ? RangeNotation.parse(trimmed, character.type(), character.unit())
                : states(trimmed, character);
    }

    private static ParseResult states(String text, StudyCharacter character) {
        // A state whose own label holds a comma, a plus or a slash is taken whole before anything is divided.
        List<StudyState> whole = StateNames.match(text, character);
        if (whole.size() == 1) {
            return new Parsed(
                    new ScoreValue.States(List.of(new Shown(whole.get(0).id(), Frequency.PLAIN)), Combination.VARY));
        }
        StateTexts texts = StateTexts.of(text, character);
        Combination combination = texts.combination();
        if (combination == null) {
            return new Rejected("'+' and '/' cannot be used in one cell. Use one of them.", List.of());
        }
        List<Shown> shown = new ArrayList<>();
        for (String part : texts.parts()) {
            ParseResult reading = one(part, character, shown);
            if (reading instanceof Rejected) {
                return reading;
            }
        }
        boolean showsSomething = shown.stream().anyMatch(s -> s.frequency() != Frequency.MISTAKEN);
        return showsSomething
                ? new Parsed(new ScoreValue.States(shown, combination))
                : new Rejected("Nothing says what the organism shows. Add a state without 'mistaken'.", List.of());
    }

    private static ParseResult one(String part, StudyCharacter character, List<Shown> shown) {
        Frequency frequency = Frequency.PLAIN;
        String name = part;
        for (Frequency word : Frequency.values()) {
            String prefix = word.name().toLowerCase(Locale.ROOT) + " ";
            if (word != Frequency.PLAIN && part.toLowerCase(Locale.ROOT).startsWith(prefix)) {
                frequency = word;
                name = part.substring(prefix.length()).strip();
            }
        }
        if (name.toLowerCase(Locale.ROOT).startsWith("for ") && frequency == Frequency.MISTAKEN) {
            name = name.substring(4).strip();
        }
        List<StudyState> matches = StateNames.match(name, character);
        if (matches.size() != 1) {
            return StateNames.reject(name, character, matches);
        }
        String id = matches.get(0).id();
        if (shown.stream().anyMatch(s -> s.state().equals(id))) {
            return new Rejected("'" + matches.get(0).label() + "' is named twice. Keep one of them.", List.of());
        }
        shown.add(new Shown(id, frequency));
        return new Parsed(new ScoreValue.Unknown());
    }
}
