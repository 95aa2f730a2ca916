package org.polyclave.study.notation;

import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Units;

/**
 * A number as readers answer with it, in the notation of cells: {@code 1 1/2 in}, {@code 35–40}, {@code c. 10}.
 *
 * @param value in the character's unit, the middle of a range; null where the text cannot be read
 * @param spread half of a range; 0 for a number, which is as exact as numbers usually are
 * @param reason why the text cannot be read, with the remedy; empty if it can
 */
public record TypedAnswer(@Nullable Double value, double spread, String reason) {
    /** @param unit of the character; for what is typed without one */
    public static TypedAnswer of(String typed, CharacterType type, String unit) {
        if (typed.isBlank()) {
            return refused("Write a number, or a range such as '5–9'.");
        }
        CellNotation.ParseResult read = RangeNotation.parse(typed.strip(), type, unit);
        if (read instanceof CellNotation.Rejected rejected) {
            return refused(rejected.reason());
        }
        ScoreValue.Range range = (ScoreValue.Range) ((CellNotation.Parsed) read).value();
        if (range.max() == null) {
            return refused("'" + typed.strip() + "' has no end. Write a number, or a range such as '20–30'.");
        }
        double factor = Units.factor(type, unit).orElse(1.0);
        return new TypedAnswer(
                Units.scaled((range.min() + range.max()) / 2, 1 / factor),
                Units.scaled((range.max() - range.min()) / 2, 1 / factor),
                "");
    }

    private static TypedAnswer refused(String reason) {
        return new TypedAnswer(null, 0, reason);
    }
}
