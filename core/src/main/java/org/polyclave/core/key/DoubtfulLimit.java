package org.polyclave.core.key;

import java.util.Arrays;
import java.util.Comparator;
import java.util.Optional;
import org.polyclave.core.key.Key.Doubt;
import org.polyclave.core.key.KeyProblem.Pattern;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.measuring.RuleOfThumb;
import org.polyclave.core.statistics.StudentPoints;

/**
 * What the individuals measured so far leave in doubt about a limit between two groups of rows.
 *
 * <p>A measured row <em>reaches</em> from the least to the greatest value that was seen, and as far as its next individual
 * lies with {@value KeyProblem#INSIDE} probability; other known rows reach as far as their ranges, which stand as given. Where the
 * reach of a lower and of an upper row overlap, the band of doubt is the overlap with the limit. Else it is the gap between
 * them, unless that is wider than one of the two rows itself: then nobody would be in doubt. Either is wider by the
 * reading's uncertainty on both sides. Where neither of the two rows was measured, there is no doubt to tell.
 *
 * <p>A limit is handy where some simple number of sizes that people carry with them lies between the two reaches, whoever's
 * they are: as far as two standard deviations from the typical size.
 */
final class DoubtfulLimit {
    private static final double[] SIMPLE = {1, 2, 0.5, 3};
    private static final double NEARLY_EVERYBODY = 2;

    private final MatrixCharacter character;
    private final StudentPoints reach;
    private final double cut;
    private double lowerEnd = Double.NEGATIVE_INFINITY;
    private double lowerSpan;
    private boolean lowerMeasured;
    private double upperEnd = Double.POSITIVE_INFINITY;
    private double upperSpan;
    private boolean upperMeasured;
    private double wrong;
    private double measured;

    DoubtfulLimit(KeyProblem problem, int character, double cut) {
        this.character = problem.matrix.character(character);
        this.reach = problem.reach;
        this.cut = cut;
    }

    /** Takes a row in; {@code upper} if its individuals belong above the limit. */
    void add(Pattern row, double mass, boolean upper) {
        if (!row.known()) {
            return;
        }
        double margin = character.margin();
        double least = row.min() + margin;
        double most = row.max() - margin;
        if (row.next().isPresent()) {
            measured += mass;
            wrong += mass * beyond(row, cut, upper);
            double[] points = reach.of(row.next().get().degrees());
            least = Math.min(least, row.next().get().at(points[0]));
            most = Math.max(most, row.next().get().at(points[1]));
        }
        if (upper && least < upperEnd) {
            upperEnd = least;
            upperSpan = most - least;
            upperMeasured = row.next().isPresent();
        } else if (!upper && most > lowerEnd) {
            lowerEnd = most;
            lowerSpan = most - least;
            lowerMeasured = row.next().isPresent();
        }
    }

    /** Share of a measured row's new individuals on the wrong side of a limit; 0 if it was not measured. */
    static double beyond(Pattern row, double cut, boolean upper) {
        return row.next().map(n -> upper ? n.upTo(cut) : 1 - n.upTo(cut)).orElse(0.0);
    }

    /** @param low a reading above this and up to {@code high} is still possible on the way to the couplet */
    Optional<Doubt> between(double low, double high) {
        boolean gap = lowerEnd < upperEnd;
        if (!(lowerMeasured || upperMeasured)
                || Double.isInfinite(lowerEnd)
                || Double.isInfinite(upperEnd)
                || (gap && upperEnd - lowerEnd > Math.min(lowerSpan, upperSpan))) {
            return Optional.empty();
        }
        double from = Math.min(cut, Math.min(lowerEnd, upperEnd));
        double to = Math.max(cut, Math.max(lowerEnd, upperEnd));
        if (character.type() == CharacterType.COUNT) {
            // Whole numbers that both may have, or that neither is known to have.
            from = gap ? Math.floor(from) + 1 : Math.ceil(from);
            to = gap ? Math.ceil(to) - 1 : Math.floor(to);
        } else {
            from -= character.uncertainty();
            to += character.uncertainty();
        }
        from = Math.max(from, Math.max(low, 0));
        to = Math.min(to, high);
        return from <= to ? Optional.of(new Doubt(from, to, wrong / measured)) : Optional.empty();
    }

    /** The simplest number that will do, of the rule that is then nearest to the limit; empty for what is not a length. */
    Optional<Key.Handy> handy() {
        for (double times : SIMPLE) {
            Optional<Key.Handy> nearest = Arrays.stream(RuleOfThumb.values())
                    .filter(rule -> fits(
                            times * rule.typical().mean(),
                            times * rule.typical().spread()))
                    .min(Comparator.comparingDouble(
                            rule -> Math.abs(times * rule.typical().mean() - cut)))
                    .map(rule -> new Key.Handy(rule, times));
            if (nearest.isPresent()) {
                return nearest;
            }
        }
        return Optional.empty();
    }

    private boolean fits(double size, double spread) {
        return character.type() == CharacterType.LENGTH
                && lowerEnd < size - NEARLY_EVERYBODY * spread
                && size + NEARLY_EVERYBODY * spread < upperEnd;
    }
}
