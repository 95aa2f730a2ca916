package org.polyclave.study.measuring;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** What a text or a mark on a picture was read as. */
public sealed interface ReadingOutcome {
    /**
     * @param typed with its unit
     * @param value in the base unit; null for states
     * @param states ids; empty for numbers
     * @param uncertainty standard uncertainty in the base unit; null for states
     */
    record Value(
            String typed,
            @Nullable Double value,
            List<String> states,
            @Nullable Double uncertainty) implements ReadingOutcome {
        public Value {
            states = List.copyOf(states);
        }
    }

    /** @param reason one sentence with the remedy */
    record Refused(String reason) implements ReadingOutcome {}
}
