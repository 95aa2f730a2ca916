package org.polyclave.study.measuring;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.measuring.RuleOfThumb;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.notation.TypedNumber;
import org.polyclave.study.notation.TypedRule;

/** Takes a reading from what was typed or sent by an instrument. */
public final class TypedReading {
    /** Of the rectangular distribution that rounding makes of what is read. */
    private static final double ROUNDED = Math.sqrt(12);

    private TypedReading() {}

    /** As below, with the sizes of people at large. */
    public static ReadingOutcome of(String typed, StudyCharacter character) {
        return of(typed, character, RuleOfThumb::typical);
    }

    /**
     * @param typed a number, with its unit or in the character's, a length by a rule of thumb, or states as in cells
     * @param sizes of the person who tells the length
     */
    public static ReadingOutcome of(
            String typed, StudyCharacter character, Function<RuleOfThumb, RuleOfThumb.Size> sizes) {
        String text = typed.strip();
        if (text.isEmpty()) {
            return new ReadingOutcome.Refused("Type a reading, or remove the line.");
        }
        if (character.type() == CharacterType.MONTHS) {
            return new ReadingOutcome.Refused(
                    "'" + character.label() + "' is given in months, which cannot be read off a specimen.");
        }
        Optional<TypedRule> rule = TypedRule.parse(text);
        if (rule.isPresent() && character.type() == CharacterType.LENGTH) {
            RuleOfThumb.Rough rough =
                    sizes.apply(rule.get().rule()).times(rule.get().times());
            return new ReadingOutcome.Value(
                    text, rough.value(), List.of(), Math.max(rough.uncertainty(), character.uncertainty()));
        }
        return character.type().isNumeric() ? number(text, character) : states(text, character);
    }

    private static ReadingOutcome number(String text, StudyCharacter character) {
        Optional<TypedNumber> read = TypedNumber.parse(text);
        if (read.isEmpty()) {
            return new ReadingOutcome.Refused("'" + text + "' is not a number. Write for example "
                    + (character.type() == CharacterType.COUNT ? "'12'" : "'12.5'")
                    + (character.unit().isEmpty() ? "." : ", '12.5 " + character.unit() + "' or '1/4 in'."));
        }
        TypedNumber number = read.get();
        String unit = number.unit().isEmpty() ? character.unit() : number.unit();
        Optional<Double> factor = Units.factor(character.type(), unit);
        if (factor.isEmpty()) {
            return new ReadingOutcome.Refused("'" + text + "' is in '" + unit + "', but '" + character.label() + "' is "
                    + (character.unit().isEmpty()
                            ? "a number without a unit."
                            : "measured in " + character.unit() + ". Check the character, or the unit."));
        }
        if (number.number() < 0 || !Double.isFinite(number.number())) {
            return new ReadingOutcome.Refused("'" + text + "' is "
                    + (number.number() < 0 ? "below zero. Sizes and counts start at 0." : "too large for any thing.")
                    + " Check it.");
        }
        double value = Units.scaled(number.number(), factor.get());
        double rounded = number.step().doubleValue() * factor.get() / ROUNDED;
        double uncertainty = character.type() == CharacterType.COUNT
                ? character.uncertainty()
                : Math.max(rounded, character.uncertainty());
        String told = number.unit().isEmpty() && !character.unit().isEmpty() ? text + " " + character.unit() : text;
        return new ReadingOutcome.Value(told, value, List.of(), uncertainty);
    }

    private static ReadingOutcome states(String text, StudyCharacter character) {
        CellNotation.ParseResult read = CellNotation.parse(text, character);
        if (read instanceof CellNotation.Rejected rejected) {
            return new ReadingOutcome.Refused(rejected.reason());
        }
        if (((CellNotation.Parsed) read).value() instanceof ScoreValue.States states
                && states.combination() != ScoreValue.Combination.EITHER
                && states.shown().stream().allMatch(s -> s.frequency() == ScoreValue.Frequency.PLAIN)) {
            return new ReadingOutcome.Value(
                    text,
                    null,
                    states.shown().stream().map(ScoreValue.Shown::state).toList(),
                    null);
        }
        return new ReadingOutcome.Refused("'" + text.toLowerCase(Locale.ROOT)
                + "' is not a reading of one specimen. Write the state that it shows, or 'a + b' if it shows both.");
    }
}
