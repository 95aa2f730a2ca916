package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.Identification.Question;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.matrix.Applicability;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/** What to look at next: what tells most about the name for the effort, and asks for nothing dangerous. */
final class NextQuestions {
    private static final double APPLICABLE = 0.5;
    private static final double LEAST_EFFORT = 0.1;
    private static final int QUESTIONS = 5;
    /** A name with this share leads by far: then only what still stands against it is worth asking. */
    private static final double LEADS = 0.90;

    private static final double EVEN = 0.5;

    private final Matrix matrix;
    private final ObservationModel readings;
    private final Outcomes outcomes;
    private final Conclusions conclusions;

    NextQuestions(Matrix matrix, ObservationModel readings, Outcomes outcomes, Conclusions conclusions) {
        this.matrix = matrix;
        this.readings = readings;
        this.outcomes = outcomes;
        this.conclusions = conclusions;
    }

    /** @param rivals those that still stand against the leader */
    List<Question> of(Belief belief, List<Standing> rivals, IdentifyOptions options) {
        Evidence evidence = belief.given();
        Harm harm = openHarm(belief.standings(), belief.margins());
        Contest contest = contest(belief, rivals);
        List<Question> found = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            MatrixCharacter character = matrix.character(c);
            boolean blocked = isAnswered(c, evidence)
                    || options.isUnavailable(c)
                    || (character.role() == CharacterRole.NEVER_FIRST && !belief.isAnswered())
                    || (matrix.monthsOfAnyRow(c) & options.months()) == 0
                    || character.handling().advice(harm) == Handling.Advice.NEVER
                    || (character.isHandling() && separatesDangersOnly(c, belief.standings()));
            if (!blocked && applicableShare(c, belief.posterior(), evidence) >= APPLICABLE) {
                double bits = evidence.nextWeight(matrix, c)
                        * outcomes.information(c, contest.posterior(), contest.outside());
                double effort = character.effort() > LEAST_EFFORT ? character.effort() : LEAST_EFFORT;
                found.add(new Question(
                        c, bits, bits / effort, character.handling().advice(harm)));
            }
        }
        List<Integer> mustShow = leads(belief) ? conclusions.mustShow(belief) : new ArrayList<>();
        found.sort((p, q) -> {
            int byTurn = Integer.compare(turn(p, mustShow), turn(q, mustShow));
            if (byTurn != 0) {
                return byTurn;
            }
            int byValue = Double.compare(q.bitsPerMinute(), p.bitsPerMinute());
            return byValue != 0 ? byValue : Integer.compare(p.character(), q.character());
        });
        return new ArrayList<>(found.subList(0, found.size() < QUESTIONS ? found.size() : QUESTIONS));
    }

    /** What takes no contact comes first, whatever it tells; before it what the leader must show, after it what only confirms. */
    private int turn(Question question, List<Integer> mustShow) {
        int turn = question.advice() == Handling.Advice.FREELY ? 0 : 4;
        if (mustShow.contains(question.character())) {
            return turn;
        }
        return turn + (matrix.character(question.character()).role().decides() ? 1 : 2);
    }

    private static boolean leads(Belief belief) {
        return !belief.isOfNothing() && belief.leader().namePosterior() >= LEADS;
    }

    /** Between whom an answer is to decide: shares by row, and of something outside. */
    private record Contest(double[] posterior, double outside) {}

    /**
     * All; once a name leads by far, it and the rows that keep it from being settled, at even odds, for their own shares would
     * make every question look idle.
     */
    private Contest contest(Belief belief, List<Standing> rivals) {
        double against = 0;
        for (int k = 0; k < rivals.size(); k++) {
            against += rivals.get(k).posterior();
        }
        if (!belief.isAnswered() || !leads(belief) || !(against > 0)) {
            return new Contest(belief.posterior(), belief.outside());
        }
        Standing leader = belief.leader();
        double[] even = new double[matrix.rowCount()];
        for (int k = 0; k < belief.standings().size(); k++) {
            Standing standing = belief.standings().get(k);
            if (matrix.sharesName(standing.row(), leader.row())) {
                even[standing.row()] = EVEN * standing.posterior() / leader.namePosterior();
            }
        }
        for (int k = 0; k < rivals.size(); k++) {
            even[rivals.get(k).row()] = EVEN * rivals.get(k).posterior() / against;
        }
        return new Contest(even, 0);
    }

    /** What may be in the hand may do: each danger until it is ruled out, and whatever else is not unlikely. */
    private Harm openHarm(List<Standing> standings, List<Margin> judged) {
        Harm harm = Harm.NONE;
        for (int k = 0; k < judged.size(); k++) {
            if (!judged.get(k).ruledOut()) {
                harm = harm.and(matrix.row(judged.get(k).row()).harm());
            }
        }
        for (int k = 0; k < standings.size(); k++) {
            int row = standings.get(k).row();
            if (!matrix.row(row).hazard().isDangerous() && standings.get(k).isRivalOf(standings.get(0))) {
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
            if (readings.isScored(row, character) && standings.get(k).isRivalOf(standings.get(0))) {
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
        List<ControllingCondition> conditions = matrix.character(character).appliesWhen();
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

    private boolean applies(int row, int character) {
        return Applicability.of(matrix, row, character) != Applicability.IMPOSSIBLE;
    }
}
