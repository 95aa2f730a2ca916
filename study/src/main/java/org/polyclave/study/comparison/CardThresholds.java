package org.polyclave.study.comparison;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.key.RoundNumber;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.RangeDistribution;
import org.polyclave.core.measuring.Threshold;
import org.polyclave.core.separation.Difference;
import org.polyclave.core.separation.Strength;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.measuring.Evidence;
import org.polyclave.study.measuring.Proposals;
import org.polyclave.study.measuring.Proposals.Proposal;
import org.polyclave.study.measuring.Thresholds;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;

/**
 * Where to cut between rows that lie side by side on the scale of a character: by the individuals that were measured where
 * there are enough of both and no reading of them is in question, else by the recorded ranges.
 */
public final class CardThresholds {
    /** Of each row, as many as a range needs that is proposed. */
    private static final int FEWEST = 5;

    private static final int DIGITS = 3;
    private static final double TELLING_ERROR = 1.0 / 3;

    /**
     * A cut, in the unit of the character.
     *
     * @param below place among the rows of the one whose values lie up to it; {@code above} likewise
     * @param error share of both that lies on the wrong side
     * @param doubtFrom where not to decide: to {@code doubtTo}; null where every value decides
     * @param individuals on which it rests; 0: on the recorded ranges
     */
    public record Cut(
            double at,
            int below,
            int above,
            double error,
            @Nullable Double doubtFrom,
            @Nullable Double doubtTo,
            int individuals) {}

    private final CompiledStudy compiled;
    private final Inheritance cells;
    private final Strength strength;
    private final Map<Integer, Map<String, Proposal>> measured = new HashMap<>();
    private @Nullable Evidence evidence;

    CardThresholds(CompiledStudy compiled, Inheritance cells, Strength strength) {
        this.compiled = compiled;
        this.cells = cells;
        this.strength = strength;
    }

    /**
     * Cuts from the lowest up; none between rows that do not differ, or are not ranges.
     *
     * @param rows of the card
     * @param difference of two places among the rows, the smaller first
     */
    List<Cut> of(int c, List<Integer> rows, Differences difference) {
        List<Integer> places = IntStream.range(0, rows.size())
                .filter(i -> compiled.matrix().cell(rows.get(i), c) instanceof Cell.Numeric)
                .boxed()
                .sorted(Comparator.comparingDouble(i -> middle(range(rows.get(i), c))))
                .toList();
        List<Cut> cuts = new ArrayList<>();
        for (int i = 0; i + 1 < places.size(); i++) {
            int below = places.get(i);
            int above = places.get(i + 1);
            Difference between = difference.of(Math.min(below, above), Math.max(below, above));
            if (between.separates() || between.tends()) {
                cuts.add(cut(c, below, above, rows, between == Difference.STRICT));
            }
        }
        return cuts;
    }

    /** Whether two ranges that touch or overlap still tell something: a cut between them is wrong in a third of them at most. */
    boolean tells(int c, int a, int b) {
        if (!(compiled.matrix().cell(a, c) instanceof Cell.Numeric first)
                || !(compiled.matrix().cell(b, c) instanceof Cell.Numeric second)
                || middle(first) == middle(second)) {
            return false;
        }
        int below = middle(first) < middle(second) ? a : b;
        int above = below == a ? b : a;
        return strength.range(below, c).cutBelow(strength.range(above, c)).error() <= TELLING_ERROR;
    }

    /** How two places of a card differ in one character. */
    interface Differences {
        Difference of(int first, int second);
    }

    private Cell.Numeric range(int row, int c) {
        return (Cell.Numeric) compiled.matrix().cell(row, c);
    }

    private static double middle(Cell.Numeric range) {
        return range.low() + range.high();
    }

    private Cut cut(int c, int below, int above, List<Integer> rows, boolean strict) {
        StudyCharacter character = compiled.characters().get(c);
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        Cell.Numeric lower = range(rows.get(below), c);
        Cell.Numeric upper = range(rows.get(above), c);
        boolean gap = lower.max() < upper.min();
        RangeDistribution.LeastError best =
                strength.range(rows.get(below), c).cutBelow(strength.range(rows.get(above), c));
        double at = character.type() == CharacterType.COUNT
                ? Math.floor(best.middle())
                : rounded(gap ? lower.max() : best.from(), gap ? upper.min() : best.to(), factor);
        Strength.Overlap overlap = Strength.overlap(lower, upper);
        Band recorded = strict ? null : new Band(overlap.from() / factor, overlap.to() / factor);
        Optional<Thresholds.Cut> read = read(c, rows.get(below), rows.get(above))
                .filter(r -> !r.threshold().secondIsLower())
                .filter(r -> !gap
                        || (r.threshold().cut() > lower.max() && r.threshold().cut() < upper.min()));
        if (read.isEmpty()) {
            return cut(at, below, above, best.error(), recorded, 0);
        }
        Threshold threshold = read.get().threshold();
        Band seen = new Band(threshold.doubtLow() / factor, threshold.doubtHigh() / factor);
        double error = Double.isNaN(threshold.crossValidated()) ? threshold.error() : threshold.crossValidated();
        double cut = character.type() == CharacterType.COUNT
                ? Math.floor(threshold.cut())
                : significant(threshold.cut() / factor);
        return cut(
                cut,
                below,
                above,
                error,
                recorded == null ? seen : recorded.with(seen),
                read.get().n());
    }

    private static Cut cut(double at, int below, int above, double error, @Nullable Band doubt, int individuals) {
        return new Cut(
                at,
                below,
                above,
                error,
                doubt == null ? null : Math.min(at, doubt.from()),
                doubt == null ? null : Math.max(at, doubt.to()),
                individuals);
    }

    private record Band(double from, double to) {
        Band with(Band other) {
            return new Band(Math.min(from, other.from), Math.max(to, other.to));
        }
    }

    private static double rounded(double from, double to, double factor) {
        return from < to ? RoundNumber.inside(from / factor, to / factor) : significant(from / factor);
    }

    private static double significant(double value) {
        return BigDecimal.valueOf(value).round(new MathContext(DIGITS)).doubleValue();
    }

    /** By the individuals; empty where too few of one were measured, or a reading is in question. */
    private Optional<Thresholds.Cut> read(int c, int below, int above) {
        Map<String, Proposal> rows = measured.computeIfAbsent(c, this::read);
        return usable(rows, below)
                .flatMap(first -> usable(rows, above).flatMap(second -> Thresholds.between(first, second)));
    }

    private Optional<Proposal> usable(Map<String, Proposal> rows, int row) {
        return Optional.ofNullable(rows.get(compiled.rows().get(row).id()))
                .filter(p -> p.counts().individuals() >= FEWEST && p.flags().isEmpty());
    }

    private Map<String, Proposal> read(int c) {
        StudyCharacter character = compiled.characters().get(c);
        Evidence all = evidence == null ? new Evidence(compiled.study()) : evidence;
        evidence = all;
        return all.of(character).stream()
                .collect(Collectors.toMap(
                        Evidence.RowReadings::row,
                        of -> Proposals.of(
                                of,
                                character,
                                cells.effective(of.row(), character.id())
                                        .map(Inheritance.Effective::score)
                                        .orElse(null))));
    }
}
