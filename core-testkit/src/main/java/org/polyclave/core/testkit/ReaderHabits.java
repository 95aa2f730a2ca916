package org.polyclave.core.testkit;

import org.polyclave.core.matrix.Observer;

/**
 * How simulated readers look.
 *
 * @param rates how many times as often as stated readers really misread
 * @param misleading share of parts that mislead
 * @param repeated share of further looks that only repeat the first
 * @param unseen share of parts that are not in the hand, each session in a month of its own; 0: all is there, all year
 * @param shared share of misreadings that are those of the whole part: whoever misreads one character of it misreads the others
 */
public record ReaderHabits(
        Observer observer, double rates, double misleading, double repeated, double unseen, double shared) {
    /** With every part in the hand, and every misreading on its own. */
    public ReaderHabits(Observer observer, double rates, double misleading, double repeated) {
        this(observer, rates, misleading, repeated, 0, 0);
    }

    /** The same, with parts that are not in the hand. */
    public ReaderHabits withUnseen(double share) {
        return new ReaderHabits(observer, rates, misleading, repeated, share, shared);
    }

    /** The same, with misreadings that go together. */
    public ReaderHabits withShared(double share) {
        return new ReaderHabits(observer, rates, misleading, repeated, unseen, share);
    }
}
