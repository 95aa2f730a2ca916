package org.polyclave.core.key;

import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;

/**
 * Fixed presets of the cost of a couplet: {@code effort + errorWeight · P(misread) · worst loss across + hazardWeight · P(misread across a
 * dangerous border)}, per specimen that passes.
 */
public enum KeyObjective {
    /** Fewest couplets: every question costs 1 and nothing else counts. The only objective that is solved exactly. */
    FEWEST(0, 0, 0, 0),
    /** Misreading costs 5 minutes, and 50 where it would part a dangerous row from a harmless one. */
    CAUTIOUS(0.2, 5, 50, 0),
    /** Keeps relatives together: parting two rows of one named group costs 0.5. */
    RELATIVES(0.2, 2, 10, 0.5),
    /** Effort counts in full: the naked eye before the lens, the lens before the microscope. */
    EQUIPMENT(1, 2, 10, 0),
    /** For beginners, who misread as novices do: misreading costs 8 minutes. */
    BEGINNER(0.2, 8, 80, 0);

    private final double effortShare;
    private final double errorWeight;
    private final double hazardWeight;
    private final double groupWeight;

    KeyObjective(double effortShare, double errorWeight, double hazardWeight, double groupWeight) {
        this.effortShare = effortShare;
        this.errorWeight = errorWeight;
        this.hazardWeight = hazardWeight;
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
        double harm = character.isHandling() ? hazardWeight / 10 : 0;
        return 1 - effortShare + effortShare * character.effort() + harm;
    }

    /** How often a character is misread on specimens of a row. */
    double misreading(MatrixCharacter character, int row) {
        return character.misreading().rate(this == BEGINNER ? Observer.NOVICE : Observer.TRAINED, row);
    }
}
