package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.identify.Identification.Conclusion;
import org.polyclave.core.identify.Identification.Contribution;
import org.polyclave.core.identify.Identification.Kind;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.Identification.Question;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Controller;
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
    private static final double LIKELY_DANGER = 0.01;
    private static final int QUESTIONS = 5;

    private final Matrix matrix;
    private final Observer observer;
    private final Readings readings;
    private final Outcomes outcomes;
    private final SafetyRule safety;

    /** For trained observers. */
    public AnyOrderIdentifier(Matrix matrix) {
        this(matrix, Observer.TRAINED);
    }

    public AnyOrderIdentifier(Matrix matrix, Observer observer) {
        this.matrix = matrix;
        this.observer = observer;
        readings = new Readings(matrix, observer);
        outcomes = new Outcomes(matrix, readings);
        safety = new SafetyRule(matrix, readings);
    }

    /** The state after {@code answers}; a later answer to a character replaces an earlier one. */
    public Identification identify(List<Answer> answers, IdentifyOptions options) {
        Matrix now = matrix.inSeason(options.months());
        return now == matrix
                ? identifyNow(answers, options)
                : new AnyOrderIdentifier(now, observer).identifyNow(answers, options);
    }

    private Identification identifyNow(List<Answer> answers, IdentifyOptions options) {
        Evidence evidence = new Evidence(matrix, outcomes, answers);
        Tally tally = new Tally(evidence, options);
        List<Standing> standings = tally.standings();
        double[] posterior = tally.posterior();
        double outside = tally.outside();
        List<Question> questions = questions(evidence, standings, posterior, outside, options);
        List<Margin> margins = margins(standings, evidence, options);
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
            double b = readings.background(answer, 0);
            double[] bits = new double[score.length];
            double[] before = shares(false);
            double mixture = 0;
            double mass = 0;
            for (int i = 0; i < bits.length; i++) {
                if (isKnown(i, c) && b > 0) {
                    double f = readings.probability(i, answer, 0);
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
        List<Controller> conditions = matrix.character(character).appliesWhen();
        for (int k = 0; k < conditions.size(); k++) {
            Controller condition = conditions.get(k);
            if (matrix.cell(row, condition.character()) instanceof Cell.Categorical shown
                    && (shown.readable() & condition.states()) == 0) {
                return false;
            }
        }
        return true;
    }

    private List<Question> questions(
            Evidence evidence, List<Standing> standings, double[] posterior, double outside, IdentifyOptions options) {
        boolean danger = dangerIsLikely(standings);
        List<Question> found = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            MatrixCharacter character = matrix.character(c);
            boolean blocked = isAnswered(c, evidence)
                    || options.isUnavailable(c)
                    || (matrix.monthsOfAnyRow(c) & options.months()) == 0
                    || (danger && character.hazardousToObserve());
            if (!blocked && applicableShare(c, posterior, evidence) >= APPLICABLE) {
                double bits = outcomes.information(c, posterior, outside);
                double effort = character.effort() > 0.1 ? character.effort() : 0.1;
                found.add(new Question(c, bits, bits / effort));
            }
        }
        found.sort((p, q) -> {
            int byValue = Double.compare(q.bitsPerMinute(), p.bitsPerMinute());
            return byValue != 0 ? byValue : Integer.compare(p.character(), q.character());
        });
        return new ArrayList<>(found.subList(0, found.size() < QUESTIONS ? found.size() : QUESTIONS));
    }

    /** While a dangerous row is still likely, nothing that needs smelling, touching or cutting is suggested. */
    private boolean dangerIsLikely(List<Standing> standings) {
        for (int k = 0; k < standings.size(); k++) {
            Standing standing = standings.get(k);
            // Not even a likely danger becomes an unlikely one by a rule of thumb.
            if (matrix.row(standing.row()).hazard().isDangerous()
                    && firmShare(standing, standings.get(0)) >= LIKELY_DANGER) {
                return true;
            }
        }
        return false;
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
        double[] firm = safety.likelihoods(evidence, false);
        double[] all = safety.likelihoods(evidence, true);
        for (int h = 0; h < matrix.rowCount(); h++) {
            if (!matrix.row(h).hazard().isDangerous()) {
                continue;
            }
            int leader = leaderBeside(standings, h);
            margins.add(
                    leader < 0
                            ? new Margin(h, false, 0, 0, new ArrayList<>())
                            : safety.judge(h, leader, firm, all, evidence, options));
        }
        return margins;
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
