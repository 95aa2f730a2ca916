package org.polyclave.core.key;

/**
 * A bipartition of what can still be seen of one character.
 *
 * @param first states of the first lead, 0 for a number
 * @param second states of the second lead, 0 for a number
 * @param cut numbers up to and including the cut follow the first lead
 */
record Split(int character, int first, int second, double cut) {
    static Split states(int character, int first, int second) {
        return new Split(character, first, second, 0);
    }

    static Split threshold(int character, double cut) {
        return new Split(character, 0, 0, cut);
    }

    boolean isNumeric() {
        return first == 0;
    }

    /** Whether a lead is the one that more leads can be made of: it holds more states, or the greater numbers. */
    boolean isRest(boolean firstLead) {
        if (isNumeric()) {
            return !firstLead;
        }
        int here = Integer.bitCount(mask(firstLead));
        int there = Integer.bitCount(mask(!firstLead));
        return here > 1 && (here > there || (here == there && !firstLead));
    }

    int mask(boolean firstLead) {
        return firstLead ? first : second;
    }
}
