package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.matrix.Matrix;

/**
 * When in the year two rows can be told apart.
 *
 * @param firm bit set of the months in which two or more independent groups separate them
 * @param thin of those in which one does
 * @param signs what separates them, in order of characters
 */
public record PairSeasonality(int firm, int thin, List<Sign> signs) {
    private static final int ALL_MONTHS = 0xFFF;

    public PairSeasonality {
        signs = List.copyOf(signs);
    }

    /**
     * A character that separates two rows.
     *
     * @param months bit set of the months in which both show it
     */
    public record Sign(int character, int months) {
        /** Whether it can be seen all year; else it is fleeting. */
        public boolean isDurable() {
            return months == ALL_MONTHS;
        }
    }

    /** Bit set of the months in which nothing separates them. */
    public int open() {
        return ALL_MONTHS & ~firm & ~thin;
    }

    /** Months of the pair, whatever months the separation itself is for; O(characters). */
    public static PairSeasonality of(Matrix matrix, StrictSeparation anyMonth, int a, int b) {
        Map<Integer, Integer> groups = new HashMap<>();
        List<Sign> signs = new ArrayList<>();
        for (int c : anyMonth.separating(a, b)) {
            int months = matrix.months(a, c) & matrix.months(b, c);
            if (months != 0) {
                signs.add(new Sign(c, months));
                groups.merge(matrix.character(c).group(), months, (x, y) -> x | y);
            }
        }
        int once = 0;
        int twice = 0;
        for (int months : groups.values()) {
            twice |= once & months;
            once |= months;
        }
        return new PairSeasonality(twice, once & ~twice, signs);
    }
}
