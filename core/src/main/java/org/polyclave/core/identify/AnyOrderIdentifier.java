package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.identify.Identification.Conclusion;
import org.polyclave.core.identify.Identification.Contribution;
import org.polyclave.core.identify.Identification.Kind;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.Identification.Question;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.margin.Looked;
import org.polyclave.core.margin.SafetyMargin;
import org.polyclave.core.matrix.Applicability;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Controller;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.run.PortableMath;

/**
 * Identification by answers in any order, by striking out or by weighing evidence.
 *
 * <p>Weighing: posterior ∝ weight · Π (L / b)^w over the answers, with L and b of {@link Readings} and w of
 * {@link Evidence}; a row that is not scored takes the posterior-weighted mean of the rows that are, answers in character
 * order. An outside row with prior {@value #OUTSIDE_PRIOR} always takes part. One call takes O(rows · characters) time
 * for the questions and O(rows · answers) for the standings. Source of the scheme: naive Bayes with misreading (Willcox,
 * Lapage & Holmes 1980 give the classical form for bacteria).
 */
public final class AnyOrderIdentifier {
    static final double OUTSIDE_PRIOR = 0.02;
    private static final double ENOUGH = 0.95;
    private static final double WORTH_ASKING = 0.05;
    private static final double RIVAL = 0.005;
    private static final double APPLICABLE = 0.5;
    private static final int QUESTIONS = 5;

    private final Matrix matrix;
    private final Observer observer;
    private final Observer whereDangerous;
    private final Readings readings;
    private final Outcomes outcomes;
    private final SafetyMargin margin;
    private final UsableEvidence usable;

    /** For whoever does not say how well they look: trained, but where it is dangerous a novice. */
    public AnyOrderIdentifier(Matrix matrix) {
        this(matrix, Observer.TRAINED, Observer.NOVICE);
    }

    public AnyOrderIdentifier(Matrix matrix, Observer observer) {
        this(matrix, observer, observer);
    }

    private AnyOrderIdentifier(Matrix matrix, Observer observer, Observer whereDangerous) {
        this.matrix = matrix;
        this.whereDangerous = whereDangerous;
        this.observer = observer;
        readings = new Readings(matrix, observer);
        outcomes = new Outcomes(matrix, readings);
        margin = new SafetyMargin(matrix, whereDangerous);
        usable = new UsableEvidence(matrix);
    }

    /** The state after {@code answers}; a later answer to a character replaces an earlier one. */
    public Identification identify(List<Answer> answers, IdentifyOptions options) {
        Matrix now = matrix.inSeason(options.months());
        return now == matrix
                ? identifyNow(answers, options)
                : new AnyOrderIdentifier(now, observer, whereDangerous).identifyNow(answers, options);
    }

    private Identification identifyNow(List<Answer> answers, IdentifyOptions options) {
        Evidence evidence = new Evidence(matrix, outcomes, answers);
        Tally tally = new Tally(evidence, options);
        List<Standing> standings = tally.standings();
        double[] posterior = tally.posterior();
        double outside = tally.outside();
        List<Margin> margins = margins(standings, evidence, options);
        List<Question> questions = questions(evidence, standings, margins, posterior, outside, options);
        Conclusion conclusion = conclude(standings, outside, questions, margins, evidence);
        return new Identification(standings, outside, questions, margins, conclusion);
    }

    /** Adds the answers up, in character order. */
    private final class Tally {
        private final IdentifyOptions options;
        private final double[] score = new double[matrix.rowCount()];
        private final double[] prior = new double[matrix.rowCount()];
        private final int[] mismatches = new int[matrix.rowCount()];
        private final int[] compared = new int[matrix.rowCount()];
        private final List<List<Contribution>> contributions = new ArrayList<>();
        private final double outsidePrior = PortableMath.log2(OUTSIDE_PRIOR);
        private double outside;

        Tally(Evidence evidence, IdentifyOptions options) {
            this.options = options;
            double total = 0;
            for (int i = 0; i < score.length; i++) {
                total += matrix.row(i).weight();
                contributions.add(new ArrayList<>());
            }
            for (int i = 0; i < score.length; i++) {
                prior[i] = PortableMath.log2((1 - OUTSIDE_PRIOR) * matrix.row(i).weight() / total);
                score[i] = prior[i];
            }
            for (int k = 0; k < evidence.pieces().size(); k++) {
                addPiece(evidence.pieces().get(k));
            }
        }

        private void addPiece(Evidence.Piece piece) {
            Answer answer = piece.answer();
            int c = answer.character();
            double b = readings.background(answer);
            double[] bits = new double[score.length];
            double[] before = shares(false);
            double mixture = 0;
            double mass = 0;
            for (int i = 0; i < bits.length; i++) {
                if (isKnown(i, c) && b > 0) {
                    double f = readings.probability(i, answer);
                    double ratio = ((1 - Readings.BLUNDER) * f + Readings.BLUNDER * b) / b;
                    bits[i] = piece.weight() * PortableMath.log2(ratio);
                    mixture += before[i] * ratio;
                    mass += before[i];
                }
            }
            double unknown = mass > 0 ? piece.weight() * PortableMath.log2(mixture / mass) : 0;
            for (int i = 0; i < bits.length; i++) {
                boolean known = isKnown(i, c);
                boolean contradicts = known && readings.contradicts(i, c, answer.observation());
                double added = known && b > 0 ? bits[i] : unknown;
                score[i] += added;
                mismatches[i] += contradicts && !answer.rough() ? 1 : 0;
                compared[i] += known && !piece.implied() ? 1 : 0;
                contributions
                        .get(i)
                        .add(new Contribution(c, added, piece.implied(), contradicts, known, answer.rough()));
            }
        }

        private boolean isStruckOut(int row) {
            return options.strikeOut() && mismatches[row] > options.tolerance();
        }

        /** Posterior of each row; rows that were struck out have none. */
        private double[] shares(boolean strike) {
            double top = outsidePrior;
            for (int i = 0; i < score.length; i++) {
                top = score[i] > top ? score[i] : top;
            }
            double[] shares = new double[score.length];
            double total = PortableMath.exp2(outsidePrior - top);
            outside = total;
            for (int i = 0; i < score.length; i++) {
                shares[i] = strike && isStruckOut(i) ? 0 : PortableMath.exp2(score[i] - top);
                total += shares[i];
            }
            for (int i = 0; i < score.length; i++) {
                shares[i] /= total;
            }
            outside /= total;
            return shares;
        }

        double[] posterior() {
            return shares(true);
        }

        double outside() {
            return outside;
        }

        List<Standing> standings() {
            double[] posterior = shares(true);
            List<Standing> all = new ArrayList<>();
            for (int i = 0; i < score.length; i++) {
                all.add(new Standing(
                        i,
                        prior[i],
                        score[i],
                        posterior[i],
                        mismatches[i],
                        isStruckOut(i),
                        compared[i],
                        List.copyOf(contributions.get(i))));
            }
            all.sort((p, q) -> {
                if (p.struckOut() != q.struckOut()) {
                    return p.struckOut() ? 1 : -1;
                }
                if (options.strikeOut() && p.mismatches() != q.mismatches()) {
                    return Integer.compare(p.mismatches(), q.mismatches());
                }
                int byScore = Double.compare(q.score(), p.score());
                return byScore != 0 ? byScore : Integer.compare(p.row(), q.row());
            });
            return all;
        }
    }

    /** Scored, and on a row to which the character surely applies. */
    private boolean isKnown(int row, int character) {
        return readings.isKnown(row, character) && applies(row, character);
    }

    private boolean applies(int row, int character) {
        return Applicability.of(matrix, row, character) != Applicability.IMPOSSIBLE;
    }

    private List<Question> questions(
            Evidence evidence,
            List<Standing> standings,
            List<Margin> margins,
            double[] posterior,
            double outside,
            IdentifyOptions options) {
        Harm harm = openHarm(standings, margins);
        List<Question> found = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            MatrixCharacter character = matrix.character(c);
            boolean blocked = isAnswered(c, evidence)
                    || options.isUnavailable(c)
                    || (matrix.monthsOfAnyRow(c) & options.months()) == 0
                    || character.handling().advice(harm) == Handling.Advice.NEVER
                    || (character.isHandling() && separatesDangersOnly(c, standings));
            if (!blocked && applicableShare(c, posterior, evidence) >= APPLICABLE) {
                double bits = outcomes.information(c, posterior, outside);
                double effort = character.effort() > 0.1 ? character.effort() : 0.1;
                found.add(new Question(
                        c, bits, bits / effort, character.handling().advice(harm)));
            }
        }
        found.sort((p, q) -> {
            boolean first = p.advice() == Handling.Advice.FREELY;
            if (first != (q.advice() == Handling.Advice.FREELY)) {
                // What takes no contact comes first, whatever it tells.
                return first ? -1 : 1;
            }
            int byValue = Double.compare(q.bitsPerMinute(), p.bitsPerMinute());
            return byValue != 0 ? byValue : Integer.compare(p.character(), q.character());
        });
        return new ArrayList<>(found.subList(0, found.size() < QUESTIONS ? found.size() : QUESTIONS));
    }

    /** What may be in the hand may do: each danger until it is ruled out, and whatever else is not unlikely. */
    private Harm openHarm(List<Standing> standings, List<Margin> margins) {
        Harm harm = Harm.NONE;
        for (int k = 0; k < margins.size(); k++) {
            if (!margins.get(k).ruledOut()) {
                harm = harm.and(matrix.row(margins.get(k).row()).harm());
            }
        }
        for (int k = 0; k < standings.size(); k++) {
            int row = standings.get(k).row();
            if (!matrix.row(row).hazard().isDangerous() && firmShare(standings.get(k), standings.get(0)) >= RIVAL) {
                harm = harm.and(matrix.row(row).harm());
            }
        }
        return harm;
    }

    /** Whether every row that is still in question for a character is dangerous: then nobody should handle it to know more. */
    private boolean separatesDangersOnly(int character, List<Standing> standings) {
        boolean any = false;
        for (int k = 0; k < standings.size(); k++) {
            int row = standings.get(k).row();
            if (isKnown(row, character) && firmShare(standings.get(k), standings.get(0)) >= RIVAL) {
                any = true;
                if (!matrix.row(row).hazard().isDangerous()) {
                    return false;
                }
            }
        }
        return any;
    }

    private static boolean isAnswered(int character, Evidence evidence) {
        for (int k = 0; k < evidence.pieces().size(); k++) {
            Evidence.Piece piece = evidence.pieces().get(k);
            if (piece.answer().character() == character && !piece.implied()) {
                return true;
            }
        }
        return false;
    }

    private double applicableShare(int character, double[] posterior, Evidence evidence) {
        List<Controller> conditions = matrix.character(character).appliesWhen();
        for (int k = 0; k < conditions.size(); k++) {
            for (int j = 0; j < evidence.pieces().size(); j++) {
                Answer answer = evidence.pieces().get(j).answer();
                if (answer.character() == conditions.get(k).character()
                        && answer.observation() instanceof Observation.Seen seen
                        && (seen.states() & conditions.get(k).states()) == 0) {
                    return 0;
                }
            }
        }
        double share = 0;
        double total = 0;
        for (int i = 0; i < posterior.length; i++) {
            boolean inapplicable = matrix.cell(i, character) instanceof Cell.NotApplicable;
            total += posterior[i];
            share += inapplicable || !applies(i, character) ? 0 : posterior[i];
        }
        return total > 0 ? share / total : 0;
    }

    private List<Margin> margins(List<Standing> standings, Evidence evidence, IdentifyOptions options) {
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
                List<Looked.Look> looks = new ArrayList<>();
                looks.add(new Looked.Look(answer.observation(), certainty(answer.certainty())));
                for (int l = 0; l < answer.further().size(); l++) {
                    Answer.Look look = answer.further().get(l);
                    looks.add(new Looked.Look(look.observation(), certainty(look.certainty())));
                }
                looked.add(new Looked(answer.character(), looks, answer.rough()));
            }
        }
        return looked;
    }

    private static Looked.Certainty certainty(Answer.Certainty certainty) {
        return switch (certainty) {
            case SURE -> Looked.Certainty.SURE;
            case LIKELY -> Looked.Certainty.LIKELY;
            case UNSURE -> Looked.Certainty.UNSURE;
        };
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

    private Conclusion conclude(
            List<Standing> standings,
            double outside,
            List<Question> questions,
            List<Margin> margins,
            Evidence evidence) {
        List<Integer> rows = new ArrayList<>();
        List<Integer> notCompared = new ArrayList<>();
        int answers = 0;
        for (int k = 0; k < evidence.pieces().size(); k++) {
            answers += evidence.pieces().get(k).implied() ? 0 : 1;
        }
        double sum = 0;
        for (int k = 0; k < standings.size(); k++) {
            Standing standing = standings.get(k);
            if (sum < ENOUGH * (1 - outside) && !standing.struckOut()) {
                rows.add(standing.row());
                sum += standing.posterior();
            }
            if (2 * standing.compared() < answers) {
                notCompared.add(standing.row());
            }
        }
        List<Integer> notRuledOut = new ArrayList<>();
        for (int k = 0; k < margins.size(); k++) {
            if (!margins.get(k).ruledOut()) {
                notRuledOut.add(margins.get(k).row());
            }
        }
        Kind kind = kind(standings, rows, outside, questions, notRuledOut, notCompared, answers);
        return new Conclusion(kind, rows, notRuledOut, notCompared);
    }

    private Kind kind(
            List<Standing> standings,
            List<Integer> rows,
            double outside,
            List<Question> questions,
            List<Integer> notRuledOut,
            List<Integer> notCompared,
            int answers) {
        if (standings.isEmpty() || standings.get(0).struckOut()) {
            return Kind.NONE_LEFT;
        }
        if (answers > 0 && outside > standings.get(0).posterior()) {
            return Kind.OUTSIDE;
        }
        if (answers > 0 && isSettled(standings, rows, notRuledOut, notCompared)) {
            return Kind.SETTLED;
        }
        boolean worthAsking = !questions.isEmpty() && questions.get(0).bits() >= WORTH_ASKING;
        return worthAsking || answers == 0 ? Kind.OPEN : Kind.REMAINING;
    }

    /** Every rival of some weight is contradicted by two independent answers, and no other dangerous row is left. */
    private boolean isSettled(
            List<Standing> standings, List<Integer> rows, List<Integer> notRuledOut, List<Integer> notCompared) {
        int target = matrix.row(standings.get(0).row()).name();
        for (int k = 0; k < rows.size(); k++) {
            if (matrix.row(rows.get(k)).name() != target) {
                return false;
            }
        }
        for (int k = 0; k < notRuledOut.size(); k++) {
            if (matrix.row(notRuledOut.get(k)).name() != target) {
                return false;
            }
        }
        for (int k = 0; k < standings.size(); k++) {
            Standing rival = standings.get(k);
            boolean other = matrix.row(rival.row()).name() != target;
            boolean weighty = firmShare(rival, standings.get(0)) >= RIVAL && !notCompared.contains(rival.row());
            if (other && weighty && contradictingGroups(rival) < 2) {
                return false;
            }
        }
        return true;
    }

    /** What a row would have beside the leader without the answers that must not be the only basis of a name, if that is more. */
    private static double firmShare(Standing rival, Standing leader) {
        double beside = leader.posterior() > 0 ? rival.posterior() / leader.posterior() : 1;
        double firm = beside * PortableMath.exp2(roughBits(leader) - roughBits(rival));
        double share = firm / (1 + firm);
        return share > rival.posterior() ? share : rival.posterior();
    }

    private static double roughBits(Standing standing) {
        double bits = 0;
        for (int k = 0; k < standing.contributions().size(); k++) {
            Contribution contribution = standing.contributions().get(k);
            bits += contribution.rough() ? contribution.bits() : 0;
        }
        return bits;
    }

    private int contradictingGroups(Standing rival) {
        List<Integer> groups = new ArrayList<>();
        for (int k = 0; k < rival.contributions().size(); k++) {
            Contribution contribution = rival.contributions().get(k);
            int group = matrix.character(contribution.character()).group();
            if (contribution.contradicts() && !contribution.rough() && !groups.contains(group)) {
                groups.add(group);
            }
        }
        return groups.size();
    }
}
