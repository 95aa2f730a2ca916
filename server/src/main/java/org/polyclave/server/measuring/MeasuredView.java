package org.polyclave.server.measuring;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.measuring.Allometry;
import org.polyclave.core.measuring.Slips;
import org.polyclave.core.measuring.Threshold;
import org.polyclave.core.statistics.Summary;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyStore;
import org.polyclave.server.study.StudyView;
import org.polyclave.study.measuring.Evidence;
import org.polyclave.study.measuring.MarkedReading;
import org.polyclave.study.measuring.Proposals;
import org.polyclave.study.measuring.RowAllometry;
import org.polyclave.study.measuring.StateShares;
import org.polyclave.study.measuring.Thresholds;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.NotationPrinter;

/**
 * What the readings of a character come to, for the screen: numbers in the character's unit.
 *
 * @param rows those of which anything was read; last, with an empty row, specimens without a name
 */
public record MeasuredView(String character, String unit, List<MeasuredRow> rows) {
    /**
     * @param unlike sexes or stages that the row mixes and should not; null if it may
     * @param cell where the readings stand to the cell of the matrix
     */
    public record MeasuredRow(
            String row,
            List<MeasuredItem> items,
            @Schema(nullable = true) @Nullable Summary summary,
            @Schema(nullable = true) @Nullable Double repeatability,
            Proposals.@Nullable Unlike unlike,
            List<StateShares.Share> shares,
            MeasuredCell cell) {}

    /**
     * One reading, or a ratio of two.
     *
     * @param reading id of the reading; empty for a ratio that was worked out
     * @param value in the unit; null for states
     * @param barred why it is not evidence; null if it is
     * @param cause of a slip, or why else it should be looked at again; null if it need not be
     * @param repaired what it would be without the slip, as one would type it; empty if nothing explains it
     */
    public record MeasuredItem(
            String reading,
            String specimen,
            String item,
            String typed,
            @Schema(nullable = true) @Nullable Double value,
            List<String> states,
            double uncertainty,
            Evidence.Material material,
            Reading.Standing standing,
            Evidence.@Nullable Barred barred,
            Slips.@Nullable Cause cause,
            String repaired,
            String by,
            long revision) {}

    /**
     * A cell and what its readings come to.
     *
     * @param now what the cell says; empty if nothing is known
     * @param inherited whether it says that for its taxon
     * @param proposed in notation; empty if there are too few individuals
     * @param leftOut readings of specimens in another material
     * @param flagged readings to be looked at again
     * @param more individuals to be measured until one of twenty at most lies outside the range
     * @param oneGathering whether all come from one place and day
     * @param range what the matrix says, in the unit; null without a range
     */
    public record MeasuredCell(
            String row,
            String character,
            String now,
            boolean inherited,
            String proposed,
            Proposals.Standing standing,
            Proposals.ReadCounts counts,
            Evidence.Material material,
            int leftOut,
            int flagged,
            boolean provisional,
            int more,
            boolean oneGathering,
            StudyView.@Nullable RangeView range) {
        static MeasuredCell of(Proposals.Proposal proposal, StudyCharacter character, @Nullable StudyScore score) {
            boolean provisional = proposal.sample() != null && proposal.sample().provisional() != null;
            return new MeasuredCell(
                    proposal.row(),
                    proposal.character(),
                    score == null ? "" : NotationPrinter.print(score.value(), character),
                    score != null && !score.row().equals(proposal.row()),
                    proposal.notation(),
                    proposal.standing(),
                    proposal.counts(),
                    proposal.material(),
                    proposal.leftOut(),
                    proposal.flags().size(),
                    provisional,
                    proposal.counts().more(),
                    proposal.counts().areOneGathering(),
                    range(score, factor(character)));
        }

        private static StudyView.@Nullable RangeView range(@Nullable StudyScore score, double factor) {
            return score != null
                            && score.value() instanceof ScoreValue.Range range
                            && range.high() != null
                            && range.max() != null
                    ? new StudyView.RangeView(
                            range.min() / factor, range.low() / factor, range.high() / factor, range.max() / factor)
                    : null;
        }
    }

    /**
     * Where to cut between two rows, in the unit.
     *
     * @param lower the row that lies below the cut
     * @param error share of both rows on the wrong side of the cut
     * @param crossValidated the same for specimens of gatherings that the cut was not made of; null if a row has but one
     * @param doubtLow from here to {@code doubtHigh} do not decide by it
     * @param more individuals to be measured until the error is known to be below one in twenty; -1 if never
     */
    public record ThresholdView(
            String lower,
            String upper,
            double cut,
            double error,
            @Nullable Double crossValidated,
            double doubtLow,
            double doubtHigh,
            int n,
            int more) {
        static ThresholdView of(String first, String second, Thresholds.Cut of, StudyCharacter character) {
            Threshold threshold = of.threshold();
            double factor = factor(character);
            return new ThresholdView(
                    threshold.secondIsLower() ? second : first,
                    threshold.secondIsLower() ? first : second,
                    threshold.cut() / factor,
                    threshold.error(),
                    Double.isNaN(threshold.crossValidated()) ? null : (Double) threshold.crossValidated(),
                    threshold.doubtLow() / factor,
                    threshold.doubtHigh() / factor,
                    of.n(),
                    of.more());
        }
    }

    /**
     * One size beside another, in the characters' units.
     *
     * @param x id of the character along which individuals are ordered
     */
    public record BesideView(String x, String y, List<RowBeside> rows) {}

    /**
     * @param exponent by which the second size grows with the first; null for too few individuals
     * @param band where the next individual lies with 95 %, at some sizes from the least to the greatest; empty for too few
     */
    public record RowBeside(
            String row,
            List<RowAllometry.Individual> individuals,
            @Schema(nullable = true) @Nullable Double exponent,
            List<BandPoint> band) {}

    public record BandPoint(double x, double low, double high) {}

    private static final int BAND_POINTS = 12;

    static BesideView beside(List<RowAllometry> growths, StudyCharacter x, StudyCharacter y) {
        return new BesideView(
                x.id(),
                y.id(),
                growths.stream()
                        .map(g -> new RowBeside(
                                g.row(),
                                g.individuals().stream()
                                        .map(i -> new RowAllometry.Individual(
                                                i.specimen(), i.x() / factor(x), i.y() / factor(y), i.unforeseen()))
                                        .toList(),
                                g.relation().map(Allometry::exponent).orElse(null),
                                g.relation()
                                        .map(r -> band(r, g, factor(x), factor(y)))
                                        .orElse(List.of())))
                        .toList());
    }

    private static List<BandPoint> band(Allometry relation, RowAllometry growth, double xFactor, double yFactor) {
        double least = growth.individuals().stream()
                .mapToDouble(RowAllometry.Individual::x)
                .min()
                .orElseThrow();
        double most = growth.individuals().stream()
                .mapToDouble(RowAllometry.Individual::x)
                .max()
                .orElseThrow();
        List<BandPoint> band = new ArrayList<>();
        for (int k = 0; k <= BAND_POINTS; k++) {
            double x = least * Math.pow(most / least, k / (double) BAND_POINTS);
            Summary.Interval next = relation.next(x);
            band.add(new BandPoint(x / xFactor, next.low() / yFactor, next.high() / yFactor));
        }
        return band;
    }

    private static double factor(StudyCharacter character) {
        return Units.factor(character.type(), character.unit()).orElse(1.0);
    }

    static MeasuredView of(StudyStore.Snapshot snapshot, StudyCharacter character, MeasuredService.Measured measured) {
        Map<String, Reading> readings = new HashMap<>();
        snapshot.study().readings().forEach(r -> readings.put(r.id(), r));
        List<MeasuredRow> rows = new ArrayList<>();
        for (Proposals.Proposal proposal : measured.of(character).values()) {
            StudyScore score = measured.score(proposal.row(), character);
            rows.add(new MeasuredRow(
                    proposal.row(),
                    items(snapshot, proposal, readings, factor(character)),
                    proposal.numbers().map(n -> scaled(n, factor(character))).orElse(null),
                    proposal.repeatability().map(r -> r / factor(character)).orElse(null),
                    proposal.unlike().orElse(null),
                    proposal.shares(),
                    MeasuredCell.of(proposal, character, score)));
        }
        return new MeasuredView(character.id(), character.unit(), rows);
    }

    private static List<MeasuredItem> items(
            StudyStore.Snapshot snapshot, Proposals.Proposal proposal, Map<String, Reading> readings, double factor) {
        Map<Integer, Proposals.Flag> flags = new HashMap<>();
        proposal.flags().forEach(f -> flags.put(f.item(), f));
        List<MeasuredItem> items = new ArrayList<>();
        for (Evidence.Item item : proposal.items()) {
            Proposals.Flag flag = flags.get(items.size());
            Reading reading =
                    item.readings().size() == 1 ? readings.get(item.readings().get(0)) : null;
            items.add(new MeasuredItem(
                    reading == null ? "" : reading.id(),
                    item.specimen(),
                    item.item(),
                    reading == null
                            ? NotationPrinter.number(
                                    MarkedReading.rounded(item.value() / factor, item.uncertainty() / factor))
                            : reading.typed(),
                    Double.isNaN(item.value()) ? null : (Double) Units.scaled(item.value() / factor, 1),
                    item.states(),
                    item.uncertainty() / factor,
                    item.material(),
                    item.standing(),
                    item.barred(),
                    flag == null ? null : flag.cause(),
                    flag == null
                            ? ""
                            : flag.repaired()
                                    .map(r -> NotationPrinter.number(Units.scaled(r / factor, 1)))
                                    .orElse(""),
                    reading == null ? "" : reading.by(),
                    reading == null
                            ? 0
                            : snapshot.revision(StudyObject.entry(StudyObject.Kind.READING, reading.id()))));
        }
        return items;
    }

    private static Summary scaled(Summary of, double factor) {
        return new Summary(
                of.n(),
                of.mean() / factor,
                Double.isNaN(of.sd()) ? 0 : of.sd() / factor,
                of.min() / factor,
                of.p5() / factor,
                of.p25() / factor,
                of.median() / factor,
                of.p75() / factor,
                of.p95() / factor,
                of.max() / factor);
    }
}
