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
    /** Units that are not words, or no other word than a unit, may follow without a sign. */
    private static final Pattern HEADING = Pattern.compile("(?i)(.+?)\\s*(?:\\(\\s*(?:in\\s+)?(\\S{1,12})\\s*\\)"
            + "|\\[\\s*(?:in\\s+)?(\\S{1,12})\\s*]|(?:[,:/]\\s*(?:in\\s+)?|\\s+in\\s+)(\\S{1,12})"
            + "|\\s+(mm|cm|µm|μm|um|mg|kg|lbs?|oz|inches|°|%))");

    /** The heading taken apart; empty if it ends in no unit. */
    public static Optional<UnitHeading> parse(String heading) {
        Matcher matcher = HEADING.matcher(heading.strip());
        if (!matcher.matches()) {
            return Optional.empty();
        }
        String typed = "";
        for (int group = 2; group <= matcher.groupCount(); group++) {
            typed = matcher.group(group) == null ? typed : matcher.group(group);
        }
        String unit = Units.typeOf(typed).isPresent() && !isMicro(typed) ? Units.usual(typed) : typed;
        return Units.typeOf(unit).map(type -> new UnitHeading(matcher.group(1), type, unit));
    }

    /** Both micro signs stay as they were written. */
    private static boolean isMicro(String unit) {
        return unit.startsWith("µ") || unit.startsWith("μ");
    }
}
