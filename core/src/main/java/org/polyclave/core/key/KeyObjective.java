package org.polyclave.core.key;

import java.util.List;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;

/**
 * Fixed presets of the cost of a key: asking each couplet, for the specimens that pass it, {@code errorWeight} for readers who
 * arrive at a wrong name, times how bad it is, and {@code hazardWeight} where a dangerous specimen is given names that are not
 * marked as dangerous.
 */
public enum KeyObjective {
    /** Fewest couplets: every question costs 1 and nothing else counts. */
    FEWEST(0, 0, 0, 0, 0),
    /**
     * Wrong names cost 5 minutes, and 200 more where a dangerous specimen is named as if it were none, for trained readers and
     * novices alike; of the keys that are found the least dangerous is taken.
     */
    CAUTIOUS(0.2, 5, 200, 5, 0),
    /** Keeps relatives together: separating two rows of one named group costs 0.5. */
    RELATIVES(0.2, 2, 10, 1, 0.5),
    /** Effort counts in full: the naked eye before the lens, the lens before the microscope. */
    EQUIPMENT(1, 2, 10, 1, 0),
    /** For beginners, who misread as novices do: a wrong name costs 8 minutes. */
    BEGINNER(0.2, 8, 80, 8, 0);

    private final double effortShare;
    private final double errorWeight;
    private final double hazardWeight;
    private final double handlingWeight;
    private final double groupWeight;

    KeyObjective(
            double effortShare, double errorWeight, double hazardWeight, double handlingWeight, double groupWeight) {
        this.effortShare = effortShare;
        this.errorWeight = errorWeight;
        this.hazardWeight = hazardWeight;
        this.handlingWeight = handlingWeight;
        this.groupWeight = groupWeight;
    }

    /** True where the cost of a couplet is 1 whatever it asks, so that the exact search applies. */
    boolean countsStepsOnly() {
        return this == FEWEST;
    }

    double errorWeight() {
        return errorWeight;
    }

    double hazardWeight() {
        return hazardWeight;
    }

    double groupWeight() {
        return groupWeight;
    }

    /** Cost of asking a character, before errors: one step, of which {@code effortShare} follows the minutes. */
    double effort(MatrixCharacter character) {
        double handling = character.isHandling() ? handlingWeight : 0;
        return 1 - effortShare + effortShare * character.effort() + handling;
    }

    /** Whose wrong names count, each alike, where nobody says who reads. */
    List<Observer> observers() {
        return switch (this) {
            case CAUTIOUS -> List.of(Observer.TRAINED, Observer.NOVICE);
            case BEGINNER -> List.of(Observer.NOVICE);
            default -> List.of(Observer.TRAINED);
        };
    }

    /** Whether, of the keys that are found, the least dangerous one is taken whatever it costs. */
    boolean isSafetyFirst() {
        return this == CAUTIOUS;
    }
}
