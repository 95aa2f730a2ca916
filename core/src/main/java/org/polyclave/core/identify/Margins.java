package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.margin.CharacterLooks;
import org.polyclave.core.margin.SafetyMargin;
import org.polyclave.core.margin.WeighedLooks;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Matrix;

/** Which dangers are ruled out by the answers so far, and what is missing of those that are not. */
final class Margins {
    private static final int MOST_BESIDE = 4;

    private final Matrix matrix;
    private final SafetyMargin margin;
    private final UsableEvidence usable;

    Margins(Matrix matrix, SafetyMargin margin) {
        this.matrix = matrix;
        this.margin = margin;
        usable = new UsableEvidence(matrix);
    }

    List<Margin> of(List<Standing> standings, WeighedLooks looked, IdentifyOptions options) {
        List<Margin> margins = new ArrayList<>();
        List<Standing> weighty = weighty(standings);
        for (int h = 0; h < matrix.rowCount(); h++) {
            if (matrix.row(h).hazard().isDangerous()) {
                List<Integer> beside = beside(standings, weighty, h);
                margins.add(
                        beside.isEmpty()
                                ? new Margin(h, false, 0, 0, 0, 0, List.of(), List.of(), List.of())
                                : margin(h, beside, looked, options));
            }
        }
        return margins;
    }

    WeighedLooks weighed(Evidence evidence) {
        return margin.weighed(looked(evidence));
    }

    /**
     * How a danger may be ruled out in favour of another row.
     *
     * @param separating usable characters
     * @param now those of them that can be looked at now, safely
     * @param later those that can be in other months
     * @param looks that would do; none if they would not
     */
    private record Way(List<Integer> separating, List<Integer> now, List<Integer> later, List<Integer> looks) {}

    private Margin margin(int danger, List<Integer> beside, WeighedLooks looked, IdentifyOptions options) {
        SafetyMargin.Judgement judged = margin.judge(danger, beside.get(0), looked);
        Way way = way(danger, beside.get(0), looked, options);
        for (int k = 1; k < beside.size() && !judged.ruledOut() && way.looks().isEmpty(); k++) {
            // What cannot be done in favour of the likeliest may be in favour of the next.
            Way other = way(danger, beside.get(k), looked, options);
            way = other.looks().isEmpty() ? way : other;
        }
        int agreeing = 0;
        for (int k = 0; k < judged.against().size(); k++) {
            agreeing += looked.times(judged.against().get(k));
        }
        return new Margin(
                danger,
                judged.ruledOut(),
                judged.support(),
                judged.needed(),
                agreeing,
                usable.features(way.separating()),
                judged.ruledOut() ? List.<Integer>of() : stillToLook(way.now(), looked),
                judged.ruledOut() ? List.<Integer>of() : way.looks(),
                way.later());
    }

    private Way way(int danger, int other, WeighedLooks looked, IdentifyOptions options) {
        List<Integer> separating = usable.separating(danger, other);
        Harm harm = matrix.row(danger).harm().and(matrix.row(other).harm());
        List<Integer> now = new ArrayList<>();
        List<Integer> later = new ArrayList<>();
        for (int k = 0; k < separating.size(); k++) {
            int c = separating.get(k);
            boolean safe = matrix.character(c).handling().advice(harm) != Handling.Advice.NEVER;
            boolean season = (matrix.months(danger, c) & matrix.months(other, c) & options.months()) != 0;
            if (safe && !options.isUnavailable(c)) {
                (season ? now : later).add(c);
            }
        }
        return new Way(separating, now, later, margin.looksNeeded(danger, other, looked, now));
    }

    /** Characters at which another look counts, those of parts that nobody has seen first. */
    private static List<Integer> stillToLook(List<Integer> characters, WeighedLooks looked) {
        List<Integer> fresh = new ArrayList<>();
        List<Integer> again = new ArrayList<>();
        for (int k = 0; k < characters.size(); k++) {
            int c = characters.get(k);
            int times = looked.times(c);
            if (times == 0) {
                fresh.add(c);
            } else if (times < CharacterLooks.MOST) {
                again.add(c);
            }
        }
        fresh.addAll(again);
        return fresh;
    }

    private static List<CharacterLooks> looked(Evidence evidence) {
        List<CharacterLooks> looked = new ArrayList<>();
        for (int k = 0; k < evidence.pieces().size(); k++) {
            Evidence.Piece piece = evidence.pieces().get(k);
            if (!piece.implied()) {
                Answer answer = piece.answer();
                looked.add(new CharacterLooks(answer.character(), answer.looks(), answer.rough()));
            }
        }
        return looked;
    }

    /** Rows that are not negligible, in their order: worked out once for all dangers. */
    private static List<Standing> weighty(List<Standing> standings) {
        List<Standing> weighty = new ArrayList<>();
        for (int k = 0; k < standings.size(); k++) {
            if (standings.get(k).isRivalOf(standings.get(0))) {
                weighty.add(standings.get(k));
            }
        }
        return weighty;
    }

    /** The likeliest row of another name, then others that are not negligible. */
    private List<Integer> beside(List<Standing> standings, List<Standing> weighty, int danger) {
        List<Integer> rows = new ArrayList<>();
        for (int k = 0; k < standings.size() && rows.isEmpty(); k++) {
            addOther(standings.get(k), danger, rows);
        }
        for (int k = 0; k < weighty.size() && rows.size() < MOST_BESIDE; k++) {
            addOther(weighty.get(k), danger, rows);
        }
        return rows;
    }

    private void addOther(Standing standing, int danger, List<Integer> rows) {
        if (!matrix.sharesName(standing.row(), danger) && !rows.contains(standing.row())) {
            rows.add(standing.row());
        }
    }
}
