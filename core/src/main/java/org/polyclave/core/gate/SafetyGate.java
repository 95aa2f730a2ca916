package org.polyclave.core.gate;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.margin.SafetyMargin;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.run.PortableMath;
import org.polyclave.core.separation.StrictSeparation;

/**
 * What stands between a study and an edition: dangers that its readers could not rule out. For each dangerous row and each
 * row of a name that is not dangerous, month by month: two usable characters on two parts must separate them, and these
 * must reach the margin when a novice sees all of them ({@link SafetyMargin}). A group that joins dangerous and harmless taxa
 * is one name, so it separates nothing. Takes O(dangerous rows · rows · characters) time.
 */
public final class SafetyGate {
    /** A character that novices misread this often does not count as one of the two. */
    static final double TOO_OFTEN_MISREAD = 0.2;
    /** Bits beyond the margin below which ruling a danger out is hard. */
    static final double COMFORT = 6;

    private static final int MONTHS = 12;

    private final Matrix matrix;
    private final StrictSeparation separation;
    private final UsableEvidence evidence;
    private final SafetyMargin margin;

    private SafetyGate(Matrix matrix) {
        this.matrix = matrix;
        separation = new StrictSeparation(matrix);
        evidence = new UsableEvidence(matrix);
        margin = new SafetyMargin(matrix, Observer.NOVICE);
    }

    /** How a danger fails. */
    public enum Kind {
        /** A key stops at a group that holds both. */
        JOINED,
        /** Fewer than two usable characters on two parts. */
        TOO_FEW,
        /** Enough characters, but they never reach the margin. */
        OUT_OF_REACH,
        /** They reach it, with little to spare: to be told, not blocked. */
        HARD;

        public boolean isBlocking() {
            return this != HARD;
        }
    }

    /**
     * A pair that fails in some months.
     *
     * @param danger index of the dangerous row
     * @param other index of a row whose name is not dangerous
     * @param months bit set of the months in which it is so
     * @param features how many usable characters on different parts there are in the worst of them, at most two
     * @param characters what separates them in the worst month
     */
    public record Unmet(Kind kind, int danger, int other, int months, int features, List<Integer> characters) {
        public Unmet {
            characters = List.copyOf(characters);
        }
    }

    /** @param months bit set of the months that the edition claims to serve */
    public static List<Unmet> unmet(Matrix matrix, int months) {
        SafetyGate gate = new SafetyGate(matrix);
        List<Unmet> unmet = new ArrayList<>();
        for (int h = 0; h < matrix.rowCount(); h++) {
            for (int j = 0; j < matrix.rowCount() && matrix.row(h).hazard().isDangerous(); j++) {
                if (matrix.row(j).hazard().isDangerous()) {
                    continue;
                }
                if (matrix.sharesName(h, j)) {
                    unmet.add(new Unmet(Kind.JOINED, h, j, months, 0, List.of()));
                } else if (!matrix.isDangerousName(matrix.row(j).name())) {
                    gate.addPair(h, j, months, unmet);
                }
            }
        }
        return unmet;
    }

    /** One finding a kind: the months in which it is so. */
    private void addPair(int h, int j, int months, List<Unmet> unmet) {
        List<Integer> all = usable(h, j);
        Map<List<Integer>, Integer> monthsOf = new LinkedHashMap<>();
        for (int m = 0; m < MONTHS; m++) {
            if ((months & (1 << m)) != 0) {
                int bit = 1 << m;
                List<Integer> now = all.stream()
                        .filter(c -> (matrix.months(h, c) & matrix.months(j, c) & bit) != 0)
                        .toList();
                monthsOf.merge(now, bit, (a, b) -> a | b);
            }
        }
        Map<Kind, Unmet> worst = new LinkedHashMap<>();
        monthsOf.forEach((characters, when) -> {
            judge(h, j, characters, when).ifPresent(found -> worst.merge(found.kind(), found, SafetyGate::together));
        });
        unmet.addAll(worst.values());
    }

    private static Unmet together(Unmet a, Unmet b) {
        Unmet fewer = a.features() <= b.features() ? a : b;
        return new Unmet(
                a.kind(), a.danger(), a.other(), a.months() | b.months(), fewer.features(), fewer.characters());
    }

    private Optional<Unmet> judge(int h, int j, List<Integer> characters, int months) {
        int features = evidence.features(
                characters.stream().filter(this::isReadReliably).toList());
        if (features < UsableEvidence.NEEDED) {
            return Optional.of(new Unmet(Kind.TOO_FEW, h, j, months, features, characters));
        }
        double spare = margin.reach(h, j, characters)
                - PortableMath.log2(SafetyMargin.needed(matrix.row(h).hazard()));
        if (spare >= COMFORT) {
            return Optional.empty();
        }
        Kind kind = spare < 0 ? Kind.OUT_OF_REACH : Kind.HARD;
        return Optional.of(new Unmet(kind, h, j, months, features, characters));
    }

    /** What separates a pair and may be looked at while the danger may be in the hand. */
    private List<Integer> usable(int h, int j) {
        Harm harm = matrix.row(h).harm().and(matrix.row(j).harm());
        return evidence.separating(h, j).stream()
                .filter(c -> separation.separates(h, j, c))
                .filter(c -> matrix.character(c).handling().advice(harm) != Handling.Advice.NEVER)
                .toList();
    }

    private boolean isReadReliably(int c) {
        return isReadReliably(matrix.character(c));
    }

    /** Whether novices misread a character seldom enough for it to count as one of the two. */
    public static boolean isReadReliably(MatrixCharacter character) {
        return character.misreading().novice() < TOO_OFTEN_MISREAD;
    }

    /**
     * What separates a danger from a row against which it is to be ruled out: usable characters, whatever the month.
     *
     * @return empty if nothing does
     */
    public static List<Integer> separating(Matrix matrix, int danger, int other) {
        return new SafetyGate(matrix).usable(danger, other);
    }
}
