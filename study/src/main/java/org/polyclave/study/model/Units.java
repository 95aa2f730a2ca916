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
    private static final Map<String, Double> MASS = Map.of("mg", 0.001, "g", 1.0, "kg", 1000.0);

    private static final MathContext DIGITS = new MathContext(12);

    private Units() {}

    /** Factor to the base unit; empty when the unit does not belong to the kind. */
    public static Optional<Double> factor(CharacterType type, String unit) {
        String name = unit.strip().toLowerCase(Locale.ROOT);
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
