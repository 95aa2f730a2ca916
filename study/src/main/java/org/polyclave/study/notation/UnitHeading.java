package org.polyclave.study.notation;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.Units;

/**
 * A heading that ends in a unit, as people write them: "leaf width (mm)", "spore length [µm]", "cover, %", "leaf width in cm".
 *
 * @param label the heading without the unit
 */
public record UnitHeading(String label, CharacterType type, String unit) {
    private static final Pattern HEADING = Pattern.compile(
            "(.+?)\\s*(?:\\(\\s*(\\S{1,3})\\s*\\)|\\[\\s*(\\S{1,3})\\s*]|(?:,\\s*(?:in\\s+)?|\\s+in\\s+)(\\S{1,2}))");

    /** The heading taken apart; empty if it ends in no unit. */
    public static Optional<UnitHeading> parse(String heading) {
        Matcher matcher = HEADING.matcher(heading.strip());
        if (!matcher.matches()) {
            return Optional.empty();
        }
        String unit = matcher.group(2) != null
                ? matcher.group(2)
                : matcher.group(3) != null ? matcher.group(3) : matcher.group(4);
        return Units.typeOf(unit).map(type -> new UnitHeading(matcher.group(1), type, unit));
    }
}
