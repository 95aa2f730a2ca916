package org.polyclave.formats.study;

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
     */
    public record Part(String part, String organ) {}
}
