package org.polyclave.core.testkit;

import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.Identification.Kind;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.matrix.Matrix;

/**
 * Readers who answer what the any-order key asks until a name is settled or nothing is left to ask: how often the names that
 * they are shown are right.
 */
public record NamingSimulation(Matrix matrix, ReaderHabits habits) {
    private static final double LIKELY = 0.95;
    private static final int MOST_ANSWERS = 25;

    /**
     * What came of many sessions.
     *
     * @param likely sessions in which a name was shown with 95 % or more at some moment
     * @param likelyRight of these, the first such name was right
     * @param settled sessions in which a name was settled
     * @param settledRight of these, those in which it was right
     * @param outside sessions that ended with "perhaps something outside this key"
     * @param answers given, in all sessions
     * @param dangerous sessions in which a specimen of a dangerous row was settled as what is not
     * @param minutes that looking took, in all sessions
     */
    public record Outcome(
            int sessions,
            int likely,
            int likelyRight,
            int settled,
            int settledRight,
            int outside,
            int answers,
            int dangerous,
            double minutes) {
        public static final Outcome NONE = new Outcome(0, 0, 0, 0, 0, 0, 0, 0, 0);

        public Outcome plus(Outcome o) {
            return new Outcome(
                    sessions + o.sessions,
                    likely + o.likely,
                    likelyRight + o.likelyRight,
                    settled + o.settled,
                    settledRight + o.settledRight,
                    outside + o.outside,
                    answers + o.answers,
                    dangerous + o.dangerous,
                    minutes + o.minutes);
        }
    }

    /** Sessions with specimens of all rows in turn. */
    public Outcome run(int sessions, long seed) {
        AnyOrderIdentifier identifier = new AnyOrderIdentifier(matrix, habits.observer());
        Outcome all = Outcome.NONE;
        for (int s = 0; s < sessions; s++) {
            int row = s % matrix.rowCount();
            all = all.plus(session(identifier, matrix, row, matrix.row(row).name(), new Random(seed * 1_000_003 + s)));
        }
        return all;
    }

    /** Sessions with specimens of rows that the key leaves out, each of a name that it then does not know. */
    public Outcome runOutside(int sessions, long seed) {
        Outcome all = Outcome.NONE;
        for (int row = 0; row < matrix.rowCount(); row++) {
            int name = matrix.row(row).name();
            List<Integer> others = IntStream.range(0, matrix.rowCount())
                    .filter(i -> matrix.row(i).name() != name)
                    .boxed()
                    .toList();
            Matrix known = matrix.withRows(others);
            AnyOrderIdentifier identifier = new AnyOrderIdentifier(known, habits.observer());
            for (int s = row; s < sessions; s += matrix.rowCount()) {
                all = all.plus(session(identifier, known, row, name, new Random(seed * 1_000_003 + s)));
            }
        }
        return all;
    }

    private Outcome session(AnyOrderIdentifier identifier, Matrix known, int row, int name, Random random) {
        ReaderSession session = new ReaderSession(matrix, habits, row, random);
        Identification found = identifier.identify(List.of(), session.options());
        Standing likely = null;
        int answers = 0;
        double minutes = 0;
        while (answers < MOST_ANSWERS && found.conclusion().kind() != Kind.SETTLED) {
            int next = next(found, session);
            if (next < 0) {
                break;
            }
            session.look(next);
            answers++;
            minutes += matrix.character(next).effort();
            found = identifier.identify(session.answers(), session.options());
            Standing leader = found.standings().get(0);
            likely = likely == null && leader.namePosterior() >= LIKELY ? leader : likely;
        }
        boolean settled = found.conclusion().kind() == Kind.SETTLED;
        boolean right = known.row(found.standings().get(0).row()).name() == name;
        return new Outcome(
                1,
                likely == null ? 0 : 1,
                likely != null && known.row(likely.row()).name() == name ? 1 : 0,
                settled ? 1 : 0,
                settled && right ? 1 : 0,
                found.conclusion().kind() == Kind.OUTSIDE ? 1 : 0,
                answers,
                settled
                                && isDangerous(matrix, row)
                                && !isDangerous(known, found.standings().get(0).row())
                        ? 1
                        : 0,
                minutes);
    }

    private static boolean isDangerous(Matrix of, int row) {
        return of.row(row).hazard().isDangerous();
    }

    /** What is asked first, while it tells anything; then what rules a danger out. */
    private static int next(Identification found, ReaderSession session) {
        if (found.conclusion().kind() != Kind.REMAINING && !found.questions().isEmpty()) {
            return found.questions().get(0).character();
        }
        for (Identification.Margin margin : found.margins()) {
            for (int c : margin.looks()) {
                if (session.times(c) < 4) {
                    return c;
                }
            }
        }
        return -1;
    }
}
