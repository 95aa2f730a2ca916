package org.polyclave.core.identify;

/**
 * How answers are to be used.
 *
 * @param strikeOut whether rows that contradict answers fall away; otherwise all evidence is weighed
 * @param tolerance contradictions a row may have before it falls away, 0 to 3; used only with {@code strikeOut}
 * @param months bit set of the months in question; questions that cannot be seen then are not suggested
 * @param unavailable per character, whether the reader cannot see it; never null, may be shorter than the matrix
 * @param presence whether a row that is not met in those months counts as less likely for it
 */
public record IdentifyOptions(boolean strikeOut, int tolerance, int months, boolean[] unavailable, boolean presence) {
    /** Contradictions that can be allowed at most. */
    public static final int MOST_TOLERANCE = 3;

    public static final IdentifyOptions WEIGH = new IdentifyOptions(false, 0, 0xFFF, new boolean[0]);

    public IdentifyOptions(boolean strikeOut, int tolerance, int months, boolean[] unavailable) {
        this(strikeOut, tolerance, months, unavailable, true);
    }

    public IdentifyOptions {
        if (tolerance < 0 || tolerance > MOST_TOLERANCE) {
            throw new IllegalArgumentException("The tolerance must be 0 to 3");
        }
    }

    boolean isUnavailable(int character) {
        return character < unavailable.length && unavailable[character];
    }
}
