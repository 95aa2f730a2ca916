package org.polyclave.study.notation;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.study.model.Units;

/** The unit that stands behind the last number of a text: "5–9 mm", "(3–)5 cm", "½ in". */
public final class TrailingUnit {
    private static final Pattern UNIT = Pattern.compile("(?s).*[\\p{N})]\\s*(\\p{L}[\\p{L}.]*|[°%\"'″′])\\)?");

    private TrailingUnit() {}

    /** As it was typed; empty if nothing known stands there. */
    public static Optional<String> of(String text) {
        Matcher unit = UNIT.matcher(text.strip());
        return unit.matches() && Units.typeOf(unit.group(1)).isPresent()
                ? Optional.of(unit.group(1))
                : Optional.empty();
    }
}
