package org.polyclave.wording.comparison;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.separation.Verdict;
import org.polyclave.study.comparison.Contrasts;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.wording.key.KeyView;

/**
 * What tells a few rows apart, what does not, and what would.
 *
 * @param gentle whether what takes smelling, cutting or touching is left out, for one of them may harm or was not assessed
 * @param points what tells them apart now, most trustworthy first
 * @param later what would, but cannot be seen now
 * @param shared characters in which all may show the same: useless here
 * @param unscored characters that are not scored for all of them
 */
public record ContrastCard(
        List<KeyView.NameView> names,
        List<PairView> pairs,
        AnswerView answer,
        boolean gentle,
        List<PointView> points,
        List<PointView> later,
        List<PointView> shared,
        List<OpenView> unscored) {

    /**
     * Two of the rows.
     *
     * @param first place among the names
     * @param firm months, 1 to 12, in which two independent groups or more tell them apart under viewing conditions
     * @param thin months in which one does
     * @param settles what will tell them apart and when, as a sentence; empty where they are told firmly now
     */
    public record PairView(
            int first,
            int second,
            Verdict verdict,
            double bits,
            List<Integer> firm,
            List<Integer> thin,
            String settles) {}

    /** The answer in a line for each row. */
    public record AnswerView(String technical, String plain) {}

    /**
     * A character.
     *
     * @param bits strength, summed over the pairs that it separates
     * @param tells places of the pairs that it separates for sure
     * @param months in which all of them show it
     * @param lack why it does not help now, or null
     * @param cells what each row shows, in the order of names
     * @param cuts between rows that differ, from the lowest up
     */
    public record PointView(
            String character,
            String subject,
            String question,
            String plainQuestion,
            String organ,
            String method,
            String where,
            String note,
            String pitfalls,
            double effort,
            boolean harms,
            boolean hazardous,
            Contrasts.Kind kind,
            double bits,
            List<Integer> tells,
            List<Integer> months,
            ViewingConditions.@Nullable Lack lack,
            List<ShownCell> cells,
            List<CutView> cuts) {}

    /**
     * What a row shows.
     *
     * @param clause the same in the words of a lead
     * @param range in the character's unit, for numbers
     * @param individuals measured; 0: not said
     */
    public record ShownCell(
            String text,
            String plain,
            String clause,
            String plainClause,
            List<ShownView> states,
            @Nullable SpanView range,
            int individuals,
            boolean doubtful,
            String source) {}

    /** @param share 0 for what is only mistaken for it */
    public record ShownView(String label, String plain, String picture, double share) {}

    public record SpanView(double min, double low, double high, double max) {}

    /**
     * Where to cut between two rows that lie side by side on the character's scale, in its unit.
     *
     * @param below place of the row whose values lie up to the cut
     * @param above place of the other
     * @param error share of both on the wrong side
     * @param from where doubt begins; null: there is none
     * @param individuals measured, by whom the cut was found; 0: by the recorded ranges
     */
    public record CutView(
            double at,
            String text,
            int below,
            int above,
            double error,
            @Nullable Double from,
            @Nullable Double to,
            int individuals) {}

    /** @param rows places of the names for which it is not scored */
    public record OpenView(String character, String subject, List<Integer> rows) {}
}
