package org.polyclave.study.model;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** What a scorer says a row shows for a character. */
public sealed interface ScoreValue {
    /** Looked for and not known; blocks inheritance. */
    record Unknown() implements ScoreValue {}

    record NotApplicable() implements ScoreValue {}

    /** Every state. */
    record Any() implements ScoreValue {}

    /** Some states, each with how often it is shown. */
    record States(List<Shown> shown, Combination combination) implements ScoreValue {
        public States {
            shown = List.copyOf(shown);
        }
    }

    record Shown(String state, Frequency frequency) {}

    /** How often a state is shown; {@link #PLAIN} is a state without a word. */
    enum Frequency {
        PLAIN(0),
        ALWAYS(1),
        USUALLY(0.75),
        SOMETIMES(0.2),
        RARELY(0.04),
        MISTAKEN(0);

        private final double weight;

        Frequency(double weight) {
            this.weight = weight;
        }

        public double weight() {
            return weight;
        }
    }

    /** Three ways of having several states. */
    enum Combination {
        /** Individuals vary. */
        VARY,
        /** One individual shows both. */
        BOTH,
        /** One of these, not known which. */
        EITHER
    }

    /**
     * A range {@code (min–)low–high(–max)} in the base unit; {@code max} and {@code high} empty: no upper limit.
     *
     * @param counts what a count is, each with how often, if that was said; the range then spans them
     */
    record Range(
            double min,
            double low,
            @Nullable Double high,
            @Nullable Double max,
            List<Count> counts) implements ScoreValue {
        public Range {
            counts = Defaults.list(counts);
        }

        public Range(double min, double low, @Nullable Double high, @Nullable Double max) {
            this(min, low, high, max, List.of());
        }
    }

    /** "Usually 5", "sometimes 3–4". */
    record Count(int from, int to, Frequency frequency) {}

    /** @param months numbers 1 to 12, ascending */
    record Months(List<Integer> months) implements ScoreValue {
        public Months {
            months = List.copyOf(months);
        }
    }
}
