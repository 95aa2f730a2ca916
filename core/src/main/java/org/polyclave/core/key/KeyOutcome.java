package org.polyclave.core.key;

import java.util.List;

/** What comes of asking for a key. */
public sealed interface KeyOutcome {
    record Generated(KeyResult result) implements KeyOutcome {}

    /** Somebody asked to stop before any key was complete. */
    record Cancelled() implements KeyOutcome {}

    /** There is nothing to make a key of. */
    record NoRows() implements KeyOutcome {}

    /**
     * Rows vary or are unknown so much that the key would name each of them over and over.
     *
     * @param terminals how many terminals there were when building stopped
     * @param thinRows rows scored for less than half of the characters
     * @param looseCharacters characters to blame: most often unknown or varying, worst first
     */
    record TooManyTerminals(int terminals, List<Integer> thinRows, List<Integer> looseCharacters)
            implements KeyOutcome {}
}
