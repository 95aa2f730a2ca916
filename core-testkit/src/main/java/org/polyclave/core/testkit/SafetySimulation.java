package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;

/**
 * Readers at work in the any-order key, from a seed: each has one specimen of a row, answers what is asked, looks again where
 * that is asked, and misreads. Some specimens have a part that misleads altogether: it shows what any taxon of the study may.
 * A reader begins with the questions that tell most, and goes on with what rules the nearest danger out.
 *
 * @param rates how many times as often as stated readers really misread
 * @param misleading share of parts that mislead
 * @param repeated share of further looks that only repeat the first
 * @param unseen share of parts that are not in the hand, each session in a month of its own; 0: all is there, all year
 */
public record SafetySimulation(
        Matrix matrix, Observer observer, double rates, double misleading, double repeated, double unseen) {
    private static final int BEGIN = 4;
    private static final int MOST_ANSWERS = 30;

    /** With every part in the hand. */
    public SafetySimulation(Matrix matrix, Observer observer, double rates, double misleading, double repeated) {
        this(matrix, observer, rates, misleading, repeated, 0);
    }

    /**
     * What came of many sessions.
     *
     * @param ruledOut sessions in which a danger was ruled out at any moment
     * @param onDanger sessions that settled on the danger at any moment
     */
    public record Outcome(int sessions, int ruledOut, int onDanger) {
        /** Upper 95 % limit, one-sided, of the share of sessions in which the danger was ruled out (Wilson 1927). */
        public double upperLimit() {
            return upperLimit(ruledOut);
        }

        public double upperLimitOnDanger() {
            return upperLimit(onDanger);
        }

        private double upperLimit(int events) {
            double n = sessions;
            double p = events / n;
            double z = 1.645;
            return (p + z * z / (2 * n) + z * Math.sqrt(p * (1 - p) / n + z * z / (4 * n * n))) / (1 + z * z / n);
        }

        public double share() {
            return (double) ruledOut / sessions;
        }

        public Outcome plus(Outcome other) {
            return new Outcome(sessions + other.sessions, ruledOut + other.ruledOut, onDanger + other.onDanger);
        }
    }

    /** Sessions with specimens of a row; what is counted is the danger. */
    public Outcome run(int row, int danger, int sessions, long seed) {
        AnyOrderIdentifier identifier = new AnyOrderIdentifier(matrix, observer);
        int ruledOut = 0;
        int onDanger = 0;
        for (int s = 0; s < sessions; s++) {
            Session session = new Session(row, new Random(seed * 1_000_003 + s));
            Identification found = identifier.identify(List.of(), session.options());
            boolean out = false;
            boolean on = false;
            for (int k = 0; k < MOST_ANSWERS; k++) {
                int next = next(found, danger, k, session);
                if (next < 0) {
                    break;
                }
                session.look(next);
                found = identifier.identify(session.answers(), session.options());
                boolean now = margin(found, danger).ruledOut();
                out |= now;
                on |= settledOn(found, danger);
                if (now && row != danger) {
                    break;
                }
            }
            ruledOut += out ? 1 : 0;
            onDanger += on ? 1 : 0;
        }
        return new Outcome(sessions, ruledOut, onDanger);
    }

    private static boolean settledOn(Identification found, int row) {
        return found.conclusion().kind() == Identification.Kind.SETTLED
                && found.conclusion().rows().contains(row);
    }

    private static Margin margin(Identification found, int danger) {
        return found.margins().stream()
                .filter(m -> m.row() == danger)
                .findFirst()
                .orElseThrow();
    }

    private static int next(Identification found, int danger, int answered, Session session) {
        if (answered < BEGIN && !found.questions().isEmpty()) {
            return found.questions().get(0).character();
        }
        Margin margin = margin(found, danger);
        if (!margin.looks().isEmpty()) {
            return margin.looks().get(0);
        }
        List<Integer> help = margin.safeQuestions();
        for (int c : help) {
            if (session.times(c) < 4) {
                return c;
            }
        }
        return found.questions().isEmpty() ? -1 : found.questions().get(0).character();
    }

    /** One specimen in the hands of one reader. */
    private final class Session {
        private final Random random;
        private final double[] shown;
        private final Map<Integer, List<Look>> looks = new HashMap<>();
        private final boolean[] unavailable;
        private final int months;

        Session(int row, Random random) {
            this.random = random;
            shown = new double[matrix.characterCount()];
            Map<Integer, Boolean> misleads = new HashMap<>();
            for (int c = 0; c < shown.length; c++) {
                boolean off =
                        misleads.computeIfAbsent(matrix.character(c).organ(), o -> random.nextDouble() < misleading);
                shown[c] = drawn(off ? random.nextInt(matrix.rowCount()) : row, c);
            }
            unavailable = new boolean[shown.length];
            months = unseen > 0 ? 1 << random.nextInt(12) : MatrixCharacter.ALL_MONTHS;
            Map<Integer, Boolean> lacking = new HashMap<>();
            for (int c = 0; c < shown.length && unseen > 0; c++) {
                int part = matrix.character(c).organ();
                unavailable[c] = lacking.computeIfAbsent(part, o -> random.nextDouble() < unseen);
            }
        }

        IdentifyOptions options() {
            return new IdentifyOptions(false, 0, months, unavailable.clone());
        }

        /** Whether the specimen has what the character is about. */
        private boolean applies(int c) {
            return matrix.character(c).appliesWhen().stream()
                    .allMatch(w -> (1 << (int) shown[w.character()] & w.states()) != 0 && applies(w.character()));
        }

        /** What a specimen of a row shows; of one that is not scored, what any row shows. */
        private double drawn(int row, int c) {
            for (int tries = 0, at = row; tries < 100; tries++, at = random.nextInt(matrix.rowCount())) {
                if (matrix.cell(at, c) instanceof Cell.Categorical states) {
                    return drawn(states.shares());
                }
                if (matrix.cell(at, c) instanceof Cell.Numeric range) {
                    double x = range.low() + random.nextDouble() * (range.high() - range.low());
                    return matrix.character(c).type() == CharacterType.COUNT ? Math.rint(x) : x;
                }
            }
            return 0;
        }

        private int drawn(double[] shares) {
            double x = random.nextDouble();
            for (int s = 0; s < shares.length; s++) {
                x -= shares[s];
                if (x < 0) {
                    return s;
                }
            }
            return shares.length - 1;
        }

        int times(int c) {
            return looks.getOrDefault(c, List.of()).size();
        }

        void look(int c) {
            if (!applies(c)) {
                unavailable[c] = true;
                return;
            }
            List<Look> before = looks.computeIfAbsent(c, k -> new ArrayList<>());
            if (!before.isEmpty() && random.nextDouble() < repeated) {
                before.add(before.get(0));
                return;
            }
            MatrixCharacter character = matrix.character(c);
            double rate = Math.min(0.6, rates * character.misreading().rate(observer, 0));
            boolean misread = random.nextDouble() < rate;
            if (character.type().isNumeric()) {
                double x = misread ? drawn(random.nextInt(matrix.rowCount()), c) : shown[c];
                before.add(new Look(new Observation.MeasuredObservation(x, character.giveOrTake(x)), Certainty.SURE));
                return;
            }
            int n = character.stateCount();
            int seen = (int) shown[c];
            seen = n > 1 && misread ? (seen + 1 + random.nextInt(n - 1)) % n : seen;
            before.add(new Look(new Observation.Seen(1 << seen), Certainty.SURE));
        }

        List<Answer> answers() {
            List<Answer> answers = new ArrayList<>();
            looks.forEach((c, of) -> answers.add(
                    new Answer(c, of.get(0).observation(), of.get(0).certainty(), false, of.subList(1, of.size()))));
            return answers;
        }
    }
}
