package org.polyclave.study.notation;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Locale;
import java.util.StringJoiner;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.ScoreValue.Combination;
import org.polyclave.study.model.ScoreValue.Frequency;
import org.polyclave.study.model.ScoreValue.Shown;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;

/** Writes a score in the notation that {@link CellNotation} reads, numbers in the character's unit. */
public final class NotationPrinter {
    private NotationPrinter() {}

    public static String print(ScoreValue value, StudyCharacter character) {
        if (value instanceof ScoreValue.Unknown) {
            return "?";
        }
        if (value instanceof ScoreValue.NotApplicable) {
            return "n/a";
        }
        if (value instanceof ScoreValue.Any) {
            return "any";
        }
        if (value instanceof ScoreValue.Months months) {
            return MonthNotation.print(months.months());
        }
        return value instanceof ScoreValue.States states
                ? states(states, character)
                : range((ScoreValue.Range) value, character);
    }

    private static String states(ScoreValue.States states, StudyCharacter character) {
        String separator = states.combination() == Combination.BOTH
                ? " + "
                : states.combination() == Combination.EITHER ? " / " : ", ";
        StringJoiner text = new StringJoiner(separator);
        for (Shown shown : states.shown()) {
            String label = character
                    .state(shown.state())
                    .map(StudyCharacter.StudyState::label)
                    .orElse(shown.state());
            String word = shown.frequency() == Frequency.PLAIN
                    ? ""
                    : shown.frequency().name().toLowerCase(Locale.ROOT) + " ";
            text.add(word + label);
        }
        return text.toString();
    }

    private static String range(ScoreValue.Range range, StudyCharacter character) {
        if (!range.counts().isEmpty()) {
            return CountNotation.print(range.counts());
        }
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        if (range.high() == null || range.max() == null) {
            return character.type() == CharacterType.COUNT && range.low() == RangeNotation.MANY
                    ? "many"
                    : ">=" + number(range.low() / factor);
        }
        return range(range.min() / factor, range.low() / factor, range.high() / factor, range.max() / factor);
    }

    /** (min–)low–high(–max), without what is not set apart. */
    public static String range(double min, double low, double high, double max) {
        String text = low == high ? number(low) : number(low) + "–" + number(high);
        if (min < low) {
            text = "(" + number(min) + "–)" + text;
        }
        return max > high ? text + "(–" + number(max) + ")" : text;
    }

    /** A number without needless digits. */
    public static String number(@Nullable Double x) {
        if (x == null) {
            return "";
        }
        return new BigDecimal(x).round(new MathContext(10)).stripTrailingZeros().toPlainString();
    }
}
