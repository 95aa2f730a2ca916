package org.polyclave.study.model;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.polyclave.core.matrix.CharacterType;

/** Units that people use, as factors to the base unit of their kind (mm, g, degrees, percent). */
public final class Units {
    private static final Map<String, Double> LENGTH =
            Map.of("um", 0.001, "µm", 0.001, "μm", 0.001, "mm", 1.0, "cm", 10.0, "m", 1000.0, "in", 25.4, "ft", 304.8);
    /** The pound and ounce of trade, exact since 1959. */
    private static final Map<String, Double> MASS =
            Map.of("mg", 0.001, "g", 1.0, "kg", 1000.0, "oz", 28.349523125, "lb", 453.59237);

    private static final Map<String, String> SPELLED = Map.ofEntries(
            Map.entry("micron", "um"),
            Map.entry("micrometre", "um"),
            Map.entry("micrometer", "um"),
            Map.entry("millimetre", "mm"),
            Map.entry("millimeter", "mm"),
            Map.entry("centimetre", "cm"),
            Map.entry("centimeter", "cm"),
            Map.entry("metre", "m"),
            Map.entry("meter", "m"),
            Map.entry("inch", "in"),
            Map.entry("inche", "in"),
            Map.entry("\"", "in"),
            Map.entry("''", "in"),
            Map.entry("foot", "ft"),
            Map.entry("feet", "ft"),
            Map.entry("'", "ft"),
            Map.entry("gram", "g"),
            Map.entry("gramme", "g"),
            Map.entry("ounce", "oz"),
            Map.entry("pound", "lb"),
            Map.entry("lb", "lb"),
            Map.entry("degree", "°"),
            Map.entry("percent", "%"),
            Map.entry("per cent", "%"));

    private static final MathContext DIGITS = new MathContext(12);

    private Units() {}

    /** Factor to the base unit; empty when the unit does not belong to the kind. */
    public static Optional<Double> factor(CharacterType type, String unit) {
        String name = usual(unit);
        if (name.isEmpty()) {
            return Optional.of(1.0);
        }
        return switch (type) {
            case LENGTH -> Optional.ofNullable(LENGTH.get(name));
            case MASS -> Optional.ofNullable(MASS.get(name));
            case ANGLE -> name.equals("°") || name.equals("deg") ? Optional.of(1.0) : Optional.empty();
            case PERCENT -> name.equals("%") ? Optional.of(1.0) : Optional.empty();
            default -> Optional.empty();
        };
    }

    /** A unit as it is usually written: "inches", "in." and the double prime are "in"; what is not known stays as it is. */
    public static String usual(String unit) {
        String name = unit.strip().toLowerCase(Locale.ROOT);
        if (name.length() > 1 && name.endsWith(".")) {
            name = name.substring(0, name.length() - 1);
        }
        String one = name.length() > 2 && name.endsWith("s") ? name.substring(0, name.length() - 1) : name;
        return SPELLED.getOrDefault(one, SPELLED.getOrDefault(name, name));
    }

    /** The kind of quantity that a unit measures; empty for none and for what is not a unit. */
    public static Optional<CharacterType> typeOf(String unit) {
        return Stream.of(CharacterType.LENGTH, CharacterType.MASS, CharacterType.ANGLE, CharacterType.PERCENT)
                .filter(type -> !unit.isBlank() && factor(type, unit).isPresent())
                .findFirst();
    }

    public static String defaultUnit(CharacterType type) {
        return switch (type) {
            case LENGTH -> "mm";
            case MASS -> "g";
            case ANGLE -> "°";
            case PERCENT -> "%";
            default -> "";
        };
    }

    /** A number in the base unit without the last-digit noise of conversion, so that 0.3 cm is 3 mm. */
    public static double scaled(double number, double factor) {
        return BigDecimal.valueOf(number * factor).round(DIGITS).doubleValue();
    }
}
