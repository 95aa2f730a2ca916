package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.margin.Looked;
import org.polyclave.core.margin.SafetyMargin;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;

/** Which dangers are ruled out by the answers so far, and what is missing of those that are not. */
final class Margins {
    private final Matrix matrix;
    private final SafetyMargin margin;
    private final UsableEvidence usable;

    Margins(Matrix matrix, Observer observer) {
        this.matrix = matrix;
        margin = new SafetyMargin(matrix, observer);
        usable = new UsableEvidence(matrix);
    }

    List<Margin> of(List<Standing> standings, Evidence evidence, IdentifyOptions options) {
        List<Margin> margins = new ArrayList<>();
        List<Looked> looked = looked(evidence);
        for (int h = 0; h < matrix.rowCount(); h++) {
            if (matrix.row(h).hazard().isDangerous()) {
                int leader = leaderBeside(standings, h);
                margins.add(
                        leader < 0
                                ? new Margin(h, false, 0, 0, 0, 0, List.of(), List.of(), List.of())
                                : margin(h, leader, looked, options));
            }
        }
        return margins;
    }

    private Margin margin(int danger, int leader, List<Looked> looked, IdentifyOptions options) {
        SafetyMargin.Judgement judged = margin.judge(danger, leader, looked);
        List<Integer> separating = usable.separating(danger, leader);
        Harm harm = matrix.row(danger).harm().and(matrix.row(leader).harm());
        List<Integer> now = new ArrayList<>();
        List<Integer> later = new ArrayList<>();
        for (int k = 0; k < separating.size(); k++) {
            int c = separating.get(k);
            boolean safe = matrix.character(c).handling().advice(harm) != Handling.Advice.NEVER;
            boolean season = (matrix.months(danger, c) & matrix.months(leader, c) & options.months()) != 0;
            if (safe && !options.isUnavailable(c)) {
                (season ? now : later).add(c);
            }
        }
        List<Integer> looks = judged.ruledOut() ? List.<Integer>of() : margin.looksNeeded(danger, leader, looked, now);
        int agreeing = 0;
        for (int k = 0; k < looked.size(); k++) {
            agreeing += judged.against().contains(looked.get(k).character())
                    ? looked.get(k).looks().size()
                    : 0;
        }
        return new Margin(
                danger,
                judged.ruledOut(),
                judged.support(),
                judged.needed(),
                agreeing,
                usable.features(separating),
                judged.ruledOut() ? List.<Integer>of() : stillToLook(now, looked),
                looks,
                later);
    }

    /** Characters at which another look counts, those of parts that nobody has seen first. */
    private List<Integer> stillToLook(List<Integer> characters, List<Looked> looked) {
        List<Integer> fresh = new ArrayList<>();
        List<Integer> again = new ArrayList<>();
        for (int k = 0; k < characters.size(); k++) {
            int c = characters.get(k);
            int times = 0;
            for (int l = 0; l < looked.size(); l++) {
                times += looked.get(l).character() == c ? looked.get(l).looks().size() : 0;
            }
            if (times == 0) {
                fresh.add(c);
            } else if (times < Looked.MOST) {
                again.add(c);
            }
        }
        fresh.addAll(again);
        return fresh;
    }

    private static List<Looked> looked(Evidence evidence) {
        List<Looked> looked = new ArrayList<>();
        for (int k = 0; k < evidence.pieces().size(); k++) {
            Evidence.Piece piece = evidence.pieces().get(k);
            if (!piece.implied()) {
                Answer answer = piece.answer();
                looked.add(new Looked(answer.character(), answer.looks(), answer.rough()));
            }
        }
        return looked;
    }

    private int leaderBeside(List<Standing> standings, int danger) {
        for (int k = 0; k < standings.size(); k++) {
            int row = standings.get(k).row();
            if (matrix.row(row).name() != matrix.row(danger).name()) {
                return row;
            }
        }
        return -1;
    }
}
