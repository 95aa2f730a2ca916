package org.polyclave.core.check;

/**
 * Something in a matrix that may be a slip.
 *
 * @param row index of the row it is about, -1 if of none
 * @param otherRow another row it is about, or -1
 * @param character index of the character, or -1
 * @param otherCharacter another character, or -1
 * @param state a state of {@code character}, or -1
 * @param figure a share or a count, as the kind says; 0 where it says nothing
 */
public record Finding(Kind kind, int row, int otherRow, int character, int otherCharacter, int state, double figure) {
    /** What may be wrong. */
    public enum Kind {
        /** No row shows {@code state}, and none may be mistaken for it. */
        UNUSED_STATE,
        /** Every row that is known shows the same. */
        NEVER_VARIES,
        /** The character varies, but no two rows are apart in it. */
        SEPARATES_NOTHING,
        /** Two rows are alike in every character, unknown cells included. */
        SAME_ROWS,
        /** The states of two characters go together in every one of {@code figure} rows: one says nothing new. */
        IMPLIED,
        /** They go together in every row but a few of {@code figure}, of which {@code row} is one: likely a slip there. */
        NEARLY_IMPLIED,
        /** The range of {@code row} ends where that of {@code otherRow} begins, as do {@code figure} pairs in all. */
        RANGES_TOUCH,
        /** Scored as not applicable, although the controlling character says that it applies. */
        NOT_APPLICABLE_BUT_APPLIES,
        /** Scored, although the controlling character says that it does not apply. */
        SCORED_BUT_NOT_APPLICABLE,
        /** More than half of the row is unknown: {@code figure} is the share. */
        UNKNOWN_ROW,
        /** More than half of the character is unknown: {@code figure} is the share. */
        UNKNOWN_CHARACTER
    }

    static Finding of(Kind kind, int row, int character) {
        return new Finding(kind, row, -1, character, -1, -1, 0);
    }
}
