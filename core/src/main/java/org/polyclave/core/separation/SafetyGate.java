package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/**
 * Which dangerous rows cannot be told from other rows by two independent characters in some month: an edition must not
 * be published unless its cautions declare these pairs. Characters that need smelling, cutting or touching, and odours,
 * do not count. Takes O(dangerous rows · rows · characters) time.
 */
public final class SafetyGate {
    /** Independent characters that it takes. */
    public static final int INDEPENDENT = 2;

    private SafetyGate() {}

    /**
     * A pair that is not told apart well enough.
     *
     * @param danger index of the dangerous row
     * @param other index of a row that is not dangerous
     * @param months bit set of the months in which it is so
     * @param fewest independent characters in the worst of these months
     */
    public record UnmetPair(int danger, int other, int months, int fewest) {}

    /** @param months bit set of the months that the edition claims to serve */
    public static List<UnmetPair> unmet(Matrix matrix, int months) {
        StrictSeparation separation = new StrictSeparation(matrix);
        List<UnmetPair> unmet = new ArrayList<>();
        for (int h = 0; h < matrix.rowCount(); h++) {
            for (int i = 0; i < matrix.rowCount() && matrix.row(h).hazard().isDangerous(); i++) {
                boolean compared = !matrix.row(i).hazard().isDangerous()
                        && matrix.row(i).name() != matrix.row(h).name();
                if (compared) {
                    addIfUnmet(matrix, separation.separating(h, i), h, i, months, unmet);
                }
            }
        }
        return unmet;
    }

    private static void addIfUnmet(
            Matrix matrix, List<Integer> separating, int h, int i, int months, List<UnmetPair> unmet) {
        int failing = 0;
        int fewest = INDEPENDENT;
        for (int month = 0; month < 12; month++) {
            int groups = (months & (1 << month)) == 0 ? INDEPENDENT : groupsIn(matrix, separating, h, i, month);
            if (groups < INDEPENDENT) {
                failing |= 1 << month;
                fewest = Math.min(fewest, groups);
            }
        }
        if (failing != 0) {
            unmet.add(new UnmetPair(h, i, failing, fewest));
        }
    }

    private static int groupsIn(Matrix matrix, List<Integer> separating, int h, int i, int month) {
        Set<Integer> groups = new HashSet<>();
        for (int c : separating) {
            MatrixCharacter character = matrix.character(c);
            boolean counts = character.countsForSafety() && !character.hazardousToObserve();
            if (counts && (matrix.months(h, c) & matrix.months(i, c) & (1 << month)) != 0) {
                groups.add(character.group());
            }
        }
        return groups.size();
    }
}
