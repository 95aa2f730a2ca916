package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Identification.Conclusion;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.Identification.Question;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.margin.SafetyMargin;
import org.polyclave.core.margin.WeighedLooks;
import org.polyclave.core.matrix.Applicability;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;

/**
 * Identification by answers in any order, by striking out or by weighing evidence.
 *
 * <p>Weighing: posterior ∝ weight · Π (L / b)^w over the answers, with L and b of {@link ObservationModel} and w of
 * {@link Evidence}; a row that is not scored takes the posterior-weighted mean of the rows that are, answers in character
 * order. An outside row with prior {@value #OUTSIDE_PRIOR} always takes part. One call takes O(rows · characters) time
 * for the questions and O(rows · answers) for the standings. Source of the scheme: naive Bayes with misreading (Willcox,
 * Lapage & Holmes 1980 give the classical form for bacteria).
 */
public final class AnyOrderIdentifier {
    static final double OUTSIDE_PRIOR = 0.02;
    private static final double APPLICABLE = 0.5;
    private static final int QUESTIONS = 5;
    private static final int SEASONS_KEPT = 3;

    private final Matrix matrix;
    private final Observer observer;
    private final Observer whereDangerous;
    private final ObservationModel readings;
    private final Outcomes outcomes;
    private final Margins margins;
    private final Conclusions conclusions;
    private final Map<Integer, AnyOrderIdentifier> seasonal = new LinkedHashMap<>();

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
        readings = new ObservationModel(matrix, observer);
        outcomes = new Outcomes(matrix, readings);
        SafetyMargin margin = new SafetyMargin(matrix, whereDangerous);
        margins = new Margins(matrix, margin);
        conclusions = new Conclusions(matrix, margin);
    }

    /** The state after {@code answers}; a later answer to a character replaces an earlier one. */
    public Identification identify(List<Answer> answers, IdentifyOptions options) {
        return inSeason(options.months()).identifyNow(answers, options);
    }

    /** Readers of a month ask again and again. */
    private synchronized AnyOrderIdentifier inSeason(int months) {
        if (seasonal.size() >= SEASONS_KEPT && !seasonal.containsKey(months)) {
            seasonal.clear();
        }
        return seasonal.computeIfAbsent(months, m -> {
            Matrix now = matrix.inSeason(m);
            return now == matrix ? this : new AnyOrderIdentifier(now, observer, whereDangerous);
        });
    }

    private Identification identifyNow(List<Answer> answers, IdentifyOptions options) {
        Evidence evidence = new Evidence(matrix, outcomes, answers);
        Tally tally = new Tally(matrix, readings, evidence, options);
        List<Standing> standings = tally.standings();
        double[] posterior = tally.posterior();
        double outside = tally.outside();
        WeighedLooks looked = margins.weighed(evidence);
        List<Margin> judged = margins.of(standings, looked, options);
        List<Question> questions = questions(evidence, standings, judged, posterior, outside, options);
        Conclusion conclusion = conclusions.of(standings, outside, questions, judged, looked);
        return new Identification(standings, outside, questions, judged, conclusion);
    }

    private boolean applies(int row, int character) {
        return Applicability.of(matrix, row, character) != Applicability.IMPOSSIBLE;
    }

    private List<Question> questions(
            Evidence evidence,
            List<Standing> standings,
            List<Margin> judged,
            double[] posterior,
            double outside,
            IdentifyOptions options) {
        Harm harm = openHarm(standings, judged);
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
}
