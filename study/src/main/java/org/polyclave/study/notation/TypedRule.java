package org.polyclave.study.notation;

import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.core.measuring.RuleOfThumb;

/**
 * A length as people tell it without a ruler: {@code 2 fingers}, {@code 1/2 fingernail}, {@code 1 1/2 pencils}, {@code a hand
 * span}.
 *
 * @param times above 0
 */
public record TypedRule(RuleOfThumb rule, double times) {
    private static final Pattern TOLD = Pattern.compile("(an?|half an?|[\\d.,/\\s]+?)\\s*(\\p{L}[\\p{L} ]*)");
    private static final Map<String, RuleOfThumb> NAMES = Map.of(
            "fingernail", RuleOfThumb.FINGERNAIL,
            "nail", RuleOfThumb.FINGERNAIL,
            "finger", RuleOfThumb.FINGER_WIDTH,
            "finger width", RuleOfThumb.FINGER_WIDTH,
            "pencil", RuleOfThumb.PENCIL,
            "hand span", RuleOfThumb.HAND_SPAN,
            "handspan", RuleOfThumb.HAND_SPAN,
            "span", RuleOfThumb.HAND_SPAN);

    /** Empty if the text tells no length in this way. */
    public static Optional<TypedRule> parse(String text) {
        Matcher matcher = TOLD.matcher(text.strip().toLowerCase(Locale.ROOT));
        if (!matcher.matches()) {
            return Optional.empty();
        }
        String name = matcher.group(2).strip().replaceAll("\\s+", " ");
        RuleOfThumb rule = NAMES.get(name.endsWith("s") ? name.substring(0, name.length() - 1) : name);
        return rule == null
                ? Optional.empty()
                : times(matcher.group(1)).filter(t -> t > 0).map(t -> new TypedRule(rule, t));
    }

    private static Optional<Double> times(String told) {
        if (told.startsWith("a")) {
            return Optional.of(1.0);
        }
        return told.startsWith("half")
                ? Optional.of(0.5)
                : TypedNumber.parse(told).filter(n -> n.unit().isEmpty()).map(TypedNumber::number);
    }
}
