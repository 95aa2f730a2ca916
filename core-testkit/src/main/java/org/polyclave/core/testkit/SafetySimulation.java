package org.polyclave.core.testkit;

import java.util.List;
import java.util.Random;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.matrix.Matrix;

/**
 * Readers at work in the any-order key, from a seed: each has one specimen of a row, answers what is asked, looks again where
 * that is asked, and misreads. Some specimens have a part that misleads altogether: it shows what any taxon of the study may.
 * A reader begins with the questions that tell most, and goes on with what rules the nearest danger out.
 *
 */
public record SafetySimulation(Matrix matrix, ReaderHabits habits) {
    private static final int BEGIN = 4;
    private static final int MOST_ANSWERS = 30;

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
        AnyOrderIdentifier identifier = new AnyOrderIdentifier(matrix, habits.observer());
        int ruledOut = 0;
        int onDanger = 0;
        for (int s = 0; s < sessions; s++) {
            ReaderSession session = new ReaderSession(matrix, habits, row, new Random(seed * 1_000_003 + s));
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

    private static int next(Identification found, int danger, int answered, ReaderSession session) {
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
}
