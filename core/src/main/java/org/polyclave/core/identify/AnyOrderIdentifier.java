package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.identify.Identification.Question;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.margin.SafetyMargin;
import org.polyclave.core.margin.WeighedLooks;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;

/**
 * Identification by answers in any order, by striking out or by weighing evidence.
 *
 * <p>Weighing: posterior ∝ weight · Π_parts [(1 − η)·Π (L / b)^w + η], over the answers on each part, with L and b of
 * {@link ObservationModel}, w of {@link Evidence} and η of {@link Tally}; a row that is not scored takes the
 * posterior-weighted mean of the rows that are, answers in character order. An outside row with prior
 * {@value #OUTSIDE_PRIOR} always takes part. One call takes O(rows · characters) time for the questions and
 * O(rows · answers) for the standings. Source of the scheme: naive Bayes with misreading (Willcox, Lapage & Holmes 1980 give
 * the classical form for bacteria), with clusters of dependent evidence that may fail together.
 */
public final class AnyOrderIdentifier {
    static final double OUTSIDE_PRIOR = 0.02;
    private static final int SEASONS_KEPT = 3;

    private final Matrix matrix;
    private final Observer observer;
    private final Observer whereDangerous;
    private final ObservationModel readings;
    private final Outcomes outcomes;
    private final Margins margins;
    private final Rivals rivals;
    private final Conclusions conclusions;
    private final NextQuestions asked;
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
        rivals = new Rivals(matrix, margin);
        conclusions = new Conclusions(matrix, rivals, outcomes);
        asked = new NextQuestions(matrix, readings, outcomes, conclusions);
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
        WeighedLooks looked = margins.weighed(evidence);
        Belief belief = new Belief(
                evidence,
                looked,
                standings,
                tally.posterior(),
                tally.outside(),
                margins.of(standings, looked, options));
        List<Standing> standing = belief.isOfNothing() ? new ArrayList<>() : rivals.of(belief);
        List<Question> questions = asked.of(belief, standing, options);
        return new Identification(
                standings, belief.outside(), questions, belief.margins(), conclusions.of(belief, questions, standing));
    }
}
