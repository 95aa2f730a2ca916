package org.polyclave.core.gate;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
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
 * must reach the margin when a novice sees the best of them ({@link SafetyMargin}): of the parts in turn, what is misread least.
 * A group that joins dangerous and harmless taxa is one name, so it separates nothing. Takes O(dangerous rows · rows ·
 * characters) time.
 */
public final class SafetyGate {
    /** A character that novices misread this often does not count as one of the two. */
    static final double TOO_OFTEN_MISREAD = 0.2;
    /** Bits beyond the margin below which ruling a danger out is hard. */
    static final double COMFORT = 6;

    private static final int MONTHS = 12;
    /** Characters that a novice looks at. */
    private static final int LOOKED_AT = 8;

    private final Matrix matrix;
    private final StrictSeparation separation;
    private final UsableEvidence evidence;
    private final SafetyMargin margin;
    /** Characters in the order in which a novice would look at them. */
    private final List<Integer> order;

    private SafetyGate(Matrix matrix) {
        this.matrix = matrix;
        separation = new StrictSeparation(matrix);
        evidence = new UsableEvidence(matrix);
        margin = new SafetyMargin(matrix, Observer.NOVICE);
        order = order(matrix);
    }

    /** The least misread of each part, then the next of each, and so on. */
    private static List<Integer> order(Matrix matrix) {
        List<Integer> sorted = IntStream.range(0, matrix.characterCount())
                .boxed()
                .sorted(Comparator.comparing(
                        c -> matrix.character(c).misreading().novice()))
                .toList();
        Map<Integer, Integer> timesOfPart = new HashMap<>();
        Map<Integer, Integer> turn = new HashMap<>();
        sorted.forEach(c -> turn.put(c, timesOfPart.merge(matrix.character(c).organ(), 1, Integer::sum)));
        return sorted.stream().sorted(Comparator.comparing(turn::get)).toList();
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
        int[] dangers = IntStream.range(0, matrix.rowCount())
                .filter(i -> matrix.row(i).hazard().isDangerous())
                .toArray();
        List<Unmet> unmet = new ArrayList<>();
        for (int j = 0; j < matrix.rowCount(); j++) {
            if (!matrix.row(j).hazard().isDangerous()) {
                gate.addPairs(dangers, j, months, unmet);
            }
        }
        unmet.sort(Comparator.comparing(Unmet::danger));
        return unmet;
    }

    private void addPairs(int[] dangers, int j, int months, List<Unmet> unmet) {
        boolean harmless = !matrix.isDangerousName(matrix.row(j).name());
        SafetyMargin.BestCase bestCase = margin.bestCase(j);
        for (int h : dangers) {
            if (matrix.sharesName(h, j)) {
                unmet.add(new Unmet(Kind.JOINED, h, j, months, 0, List.of()));
            } else if (harmless) {
                addPair(h, j, months, bestCase, unmet);
            }
        }
    }

    /** One finding a kind: the months in which it is so. */
    private void addPair(int h, int j, int months, SafetyMargin.BestCase bestCase, List<Unmet> unmet) {
        if (judge(h, j, first(h, j, months), months, bestCase).isEmpty()) {
            // Most pairs are far apart all year.
            return;
        }
        List<Integer> all = usable(h, j);
        Map<Kind, Unmet> worst = new LinkedHashMap<>();
        seasons(h, j, all, months).forEach((characters, when) -> {
            judge(h, j, characters, when, bestCase)
                    .ifPresent(found -> worst.merge(found.kind(), found, SafetyGate::together));
        });
        unmet.addAll(worst.values());
    }

    /** Which of some characters can be seen in which months. */
    private Map<List<Integer>, Integer> seasons(int h, int j, List<Integer> characters, int months) {
        Map<List<Integer>, Integer> seasons = new LinkedHashMap<>();
        for (int m = 0; m < MONTHS; m++) {
            int bit = 1 << m;
            if ((months & bit) != 0) {
                List<Integer> now =
                        characters.stream().filter(c -> isSeenIn(h, j, c, bit)).toList();
                seasons.merge(now, bit, (a, b) -> a | b);
            }
        }
        return seasons;
    }

    private static Unmet together(Unmet a, Unmet b) {
        Unmet fewer = a.features() <= b.features() ? a : b;
        return new Unmet(
                a.kind(), a.danger(), a.other(), a.months() | b.months(), fewer.features(), fewer.characters());
    }

    private Optional<Unmet> judge(int h, int j, List<Integer> characters, int months, SafetyMargin.BestCase bestCase) {
        int features = evidence.features(
                characters.stream().filter(this::isReadReliably).toList());
        if (features < UsableEvidence.NEEDED) {
            return Optional.of(new Unmet(Kind.TOO_FEW, h, j, months, features, characters));
        }
        List<Integer> lookedAt =
                order.stream().filter(characters::contains).limit(LOOKED_AT).toList();
        double spare = bestCase.reach(h, lookedAt)
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
        return IntStream.range(0, matrix.characterCount())
                .filter(c -> isUsable(h, j, c, harm))
                .boxed()
                .toList();
    }

    /** The first of them in every month. */
    private List<Integer> first(int h, int j, int months) {
        Harm harm = matrix.row(h).harm().and(matrix.row(j).harm());
        return order.stream()
                .filter(c -> isSeenIn(h, j, c, months))
                .filter(c -> isUsable(h, j, c, harm))
                .limit(LOOKED_AT)
                .toList();
    }

    private boolean isSeenIn(int h, int j, int c, int months) {
        return (matrix.months(h, c) & matrix.months(j, c) & months) == months;
    }

    private boolean isUsable(int h, int j, int c, Harm harm) {
        return evidence.separates(h, j, c)
                && separation.separates(h, j, c)
                && matrix.character(c).handling().advice(harm) != Handling.Advice.NEVER;
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
