package org.polyclave.study.model;

import java.util.ArrayList;
import java.util.List;

/**
 * The outline of the organisms of a study with its named parts, on which organs are found.
 *
 * @param plan name of the drawing: plant, mushroom, crab ...; empty: none
 * @param parts names that this study gives to parts of the drawing, and parts that the drawing does not have
 */
public record BodyPlan(String plan, List<Part> parts) {
    public static final BodyPlan NONE = new BodyPlan("", List.of());

    public BodyPlan {
        parts = List.copyOf(parts);
    }

    /**
     * @param part of the drawing; empty: not drawn
     * @param organ as the characters of the study call it
     * @param within organ in or on which it lies: what misleads there may mislead here, so that the two never count as two
     *     parts against a danger; empty: none
     */
    public record Part(String part, String organ, String within) {
        public Part {
            within = Defaults.or(within, "");
        }

        public Part(String part, String organ) {
            this(part, organ, "");
        }
    }

    /** The organs in or on which an organ lies, from the nearest to the outermost; compared without case. */
    public List<String> around(String organ) {
        List<String> found = new ArrayList<>();
        String at = organ;
        while (found.size() <= parts.size()) {
            String inner = at;
            at = parts.stream()
                    .filter(p ->
                            p.organ().equalsIgnoreCase(inner) && !p.within().isBlank())
                    .map(p -> p.within().strip())
                    .findFirst()
                    .orElse("");
            if (at.isEmpty()) {
                return found;
            }
            found.add(at);
        }
        return List.of();
    }
}
