package org.polyclave.core.separation;

import java.util.Arrays;

/**
 * When and with what rows are told apart.
 *
 * @param months bit set of months; a character tells two rows apart if there is one among them in which both show it. 0: the
 *     time of year is not asked
 * @param unusable by character, whether it cannot be seen: the organ, the lens or the fresh material is missing; characters
 *     beyond the end can be seen
 */
public record SeparationContext(int months, boolean[] unusable) {
    public static final SeparationContext EVERYTHING = new SeparationContext(0, new boolean[0]);

    public SeparationContext {
        unusable = unusable.clone();
    }

    public boolean isUsable(int character) {
        return character >= unusable.length || !unusable[character];
    }

    /** The same with other months. */
    public SeparationContext in(int otherMonths) {
        return new SeparationContext(otherMonths, unusable);
    }

    /** The months of the context in which a row shows a character; all bits where the time of year is not asked. */
    int monthsOf(int shown) {
        return months == 0 ? -1 : shown & months;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof SeparationContext that
                && months == that.months
                && Arrays.equals(unusable, that.unusable);
    }

    @Override
    public int hashCode() {
        return 31 * months + Arrays.hashCode(unusable);
    }
}
