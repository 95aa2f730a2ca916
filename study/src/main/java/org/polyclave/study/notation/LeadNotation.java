package org.polyclave.study.notation;

import com.ibm.icu.text.MessageFormat;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.polyclave.core.matrix.CharacterType;

/**
 * The pattern of a lead's clause: an ICU message with a slot for what is seen, {@code {states}}, {@code {months}} or
 * {@code {value}}; of a count also {@code {count, plural, one {# segment} other {# segments}}}. Where "usually" belongs
 * elsewhere than before the first slot, {@code {usually}} says so.
 */
public final class LeadNotation {
    private static final String STATES = "states";
    private static final String MONTHS = "months";
    private static final String VALUE = "value";
    private static final String COUNT = "count";
    private static final String USUALLY = "usually";

    private LeadNotation() {}

    /** Whether it can be read, has a slot for what is seen of such a character, and no slot that is unknown. */
    public static boolean isReadable(String pattern, CharacterType type) {
        try {
            Set<String> slots = new HashSet<>(format(pattern).getArgumentNames());
            slots.remove(USUALLY);
            Set<String> allowed = slots(type);
            if (slots.isEmpty() || !allowed.containsAll(slots)) {
                return false;
            }
            fill(pattern, "x", 2, false);
            return true;
        } catch (IllegalArgumentException unreadable) {
            return false;
        }
    }

    private static Set<String> slots(CharacterType type) {
        return switch (type) {
            case STATES, ORDERED -> Set.of(STATES);
            case MONTHS -> Set.of(MONTHS);
            case COUNT -> Set.of(VALUE, COUNT);
            default -> Set.of(VALUE);
        };
    }

    /** A pattern that can be read for such a character. */
    public static String example(CharacterType type) {
        return switch (type) {
            case STATES, ORDERED -> "leaf margin {states}";
            case MONTHS -> "flowering {months}";
            case COUNT -> "antenna with {count, plural, one {# segment} other {# segments}}";
            default -> "leaf {value} wide";
        };
    }

    /**
     * The clause, without a capital.
     *
     * @param seen words for what is seen; also where a plural prints its number
     * @param count the number that a plural goes by: of a range its end
     * @throws IllegalArgumentException if the pattern cannot be read
     */
    public static String fill(String pattern, String seen, double count, boolean usually) {
        int slot = pattern.indexOf('{');
        String whole = pattern.contains('{' + USUALLY + '}') || slot < 0
                ? pattern
                : pattern.substring(0, slot) + "{usually} " + pattern.substring(slot);
        String text = format(whole)
                .format(Map.of(
                        STATES, seen, MONTHS, seen, VALUE, seen, COUNT, count, USUALLY, usually ? "usually" : ""));
        return text.strip().replaceAll("\\s+", " ").replaceAll(" ([,;.])", "$1");
    }

    /** A plural's own number would be printed in digits, and of a range only its end. */
    private static MessageFormat format(String pattern) {
        return new MessageFormat(pattern.replace("#", "{value}"), Locale.ENGLISH);
    }
}
