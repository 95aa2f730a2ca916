package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * What an author says of a row, to be tested against matrix and scope.
 *
 * @param kind what is said
 * @param character the character that it is about
 * @param states ids of the states that it is about
 * @param text the claim in words, as in the literature
 */
@RecordBuilder
public record Claim(String id, String row, Kind kind, String character, List<String> states, String text)
        implements ClaimBuilder.With {
    public Claim {
        states = List.copyOf(states);
    }

    /** What is said of a row and some states. */
    public enum Kind {
        /** Only this row shows one of them. */
        ONLY,
        /** The row always shows one of them. */
        ALWAYS,
        /** The row never shows one of them. */
        NEVER
    }
}
