package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.margin.CharacterLooks;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;

/**
 * The safety margin written down from its definition, for matrices of states without dependent characters and confusable
 * states. It shares nothing with the rule but the matrix.
 */
public final class MarginOracle {
    private final Matrix matrix;
    private final Observer observer;

    public MarginOracle(Matrix matrix, Observer observer) {
        this.matrix = matrix;
        this.observer = observer;
    }

    /** In favour of the leader, or of the row that adds most to the sum. */
    public boolean ruledOut(int h, int leader, List<CharacterLooks> looked) {
        int strongest = leader;
        double most = 0;
        for (int j = 0; j < matrix.rowCount(); j++) {
            double share = isOther(h, j) ? Math.pow(2, -differences(h, j)) * lambda(h, j, looked) : 0;
            if (share > most * (1 + 1e-12)) {
                strongest = j;
                most = share;
            }
        }
        return ruledOutFor(h, leader, looked) || ruledOutFor(h, strongest, looked);
    }

    private boolean ruledOutFor(int h, int leader, List<CharacterLooks> looked) {
        double needed = matrix.row(h).hazard() == Hazard.LIFE_THREATENING ? 300 : 150;
        List<Integer> against = new ArrayList<>();
        int contrary = 0;
        for (CharacterLooks one : looked) {
            int no = 0;
            int yes = 0;
            int both = 0;
            for (Look look : counted(one)) {
                boolean dangerShows = shows(h, one.character(), look);
                boolean leaderShows = shows(leader, one.character(), look);
                boolean sure = look.certainty() == Certainty.SURE;
                boolean may = usable(h, leader, one.character()) && !absent(one.character(), look);
                no += sure && !dangerShows && leaderShows && may ? 1 : 0;
                yes += sure && dangerShows && !leaderShows ? 1 : 0;
                both += sure && dangerShows && leaderShows ? 1 : 0;
            }
            boolean compared = known(h, one.character()) && known(leader, one.character()) && !one.rough();
            if (compared && no > yes + both) {
                against.add(one.character());
            } else if (compared && yes > no) {
                contrary++;
            }
        }
        boolean twoParts = false;
        for (int a : against) {
            for (int b : against) {
                twoParts |= !inOneAnother(a, b);
            }
        }
        return support(h, looked) >= needed && against.size() - contrary >= 2 && twoParts;
    }

    private boolean inOneAnother(int a, int b) {
        int p = matrix.character(a).organ();
        int q = matrix.character(b).organ();
        return p == q
                || matrix.character(a).around().contains(q)
                || matrix.character(b).around().contains(p);
    }

    private static List<Look> counted(CharacterLooks one) {
        return one.looks().subList(0, Math.min(4, one.looks().size()));
    }

    private boolean known(int row, int c) {
        return matrix.cell(row, c) instanceof Cell.Categorical;
    }

    private int readable(int row, int c) {
        return ((Cell.Categorical) matrix.cell(row, c)).readable();
    }

    private boolean shows(int row, int c, Look look) {
        return known(row, c) && (readable(row, c) & seen(look)) != 0;
    }

    private static int seen(Look look) {
        return ((Observation.Seen) look.observation()).states();
    }

    private boolean absent(int c, Look look) {
        return (seen(look) & matrix.character(c).absence()) != 0;
    }

    private boolean usable(int h, int j, int c) {
        return known(h, c)
                && known(j, c)
                && matrix.isUsable(h, c)
                && matrix.isUsable(j, c)
                && matrix.character(c).countsForSafety();
    }

    public double support(int h, List<CharacterLooks> looked) {
        double sum = 0;
        double weights = 0;
        for (int j = 0; j < matrix.rowCount(); j++) {
            if (isOther(h, j)) {
                double weight = Math.pow(2, -differences(h, j));
                weights += weight;
                sum += weight * lambda(h, j, looked);
            }
        }
        return weights == 0 ? 0 : sum / weights;
    }

    /** What one row adds to the sum. */
    public double share(int h, int row, List<CharacterLooks> looked) {
        double weights = 0;
        for (int j = 0; j < matrix.rowCount(); j++) {
            weights += isOther(h, j) ? Math.pow(2, -differences(h, j)) : 0;
        }
        return Math.pow(2, -differences(h, row)) * lambda(h, row, looked) / weights;
    }

    private boolean isOther(int h, int j) {
        return matrix.row(j).name() != matrix.row(h).name();
    }

    private int differences(int h, int j) {
        int d = 0;
        for (int c = 0; c < matrix.characterCount(); c++) {
            d += usable(h, j, c) && (readable(h, c) & readable(j, c)) == 0 ? 1 : 0;
        }
        return Math.min(d, 8);
    }

    private int part(int c) {
        List<Integer> around = matrix.character(c).around();
        return around.isEmpty() ? matrix.character(c).organ() : around.get(around.size() - 1);
    }

    private double lambda(int h, int j, List<CharacterLooks> looked) {
        Set<Integer> parts = new TreeSet<>();
        looked.forEach(l -> parts.add(part(l.character())));
        double lambda = 1;
        for (int part : parts) {
            double[] counting = {1, 1, 1};
            double[] withWhatSpeaksForIt = {1, 1, 1};
            for (CharacterLooks one : looked) {
                int c = one.character();
                if (part(c) == part && known(h, c) && known(j, c)) {
                    double b = background(c, rate(h, c, true), one);
                    double fh = factor(h, c, rate(h, c, true), b, one);
                    boolean disjoint = (readable(h, c) & readable(j, c)) == 0;
                    double fj = factor(j, c, disjoint ? rate(j, c, false) : rate(h, c, true), b, one);
                    boolean may = usable(h, j, c)
                            && !one.rough()
                            && counted(one).stream().noneMatch(l -> absent(c, l) || l.certainty() == Certainty.UNSURE);
                    times(counting, may, fj, fh, b);
                    times(withWhatSpeaksForIt, may || fj < fh, fj, fh, b);
                }
            }
            lambda *= Math.min(odds(counting), odds(withWhatSpeaksForIt));
        }
        return lambda;
    }

    private static void times(double[] products, boolean taken, double own, double its, double any) {
        products[0] *= taken ? own : 1;
        products[1] *= taken ? its : 1;
        products[2] *= taken ? any : 1;
    }

    private static double odds(double[] of) {
        return (0.97 * of[0] + 0.03 * of[2]) / (0.97 * of[1] + 0.03 * of[2]);
    }

    private double rate(int row, int c, boolean doubled) {
        double stated = matrix.character(c).misreading().rate(observer, row);
        double k = matrix.character(c).stateCount();
        return doubled ? Math.min(0.6, Math.min(1 - 1 / k, 2 * Math.max(stated, 0.01))) : stated;
    }

    /** @param mistaken states that the row is taken for, with 15 % of its specimens */
    private double record(int c, int truth, int mistaken, Look look, double rate) {
        int n = matrix.character(c).stateCount();
        int taken = Integer.bitCount(mistaken & ~(1 << truth));
        int others = n - 1 - taken;
        double right = taken == 0 ? 1 : 0.85;
        double e = others == 0 ? 0 : right * Math.min(0.6, look.certainty() == Certainty.SURE ? rate : 2 * rate);
        double p = 0;
        for (int s = 0; s < n; s++) {
            if ((seen(look) & (1 << s)) != 0) {
                p += s == truth ? right - e : (mistaken & (1 << s)) != 0 ? 0.15 / taken : e / others;
            }
        }
        return p;
    }

    private double factor(int row, int c, double rate, double b, CharacterLooks one) {
        double sum = 0;
        Cell.Categorical cell = (Cell.Categorical) matrix.cell(row, c);
        double[] shares = cell.shares();
        for (int s = 0; s < shares.length; s++) {
            double product = shares[s];
            for (Look look : counted(one)) {
                product *= record(c, s, cell.readable() & ~cell.support(), look, rate);
            }
            sum += product;
        }
        return 0.98 * sum + 0.02 * b;
    }

    private double background(int c, double rate, CharacterLooks one) {
        int n = matrix.character(c).stateCount();
        double[] study = new double[n];
        int scored = 0;
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (matrix.cell(i, c) instanceof Cell.Categorical shown) {
                scored++;
                for (int s = 0; s < n; s++) {
                    study[s] += shown.shares()[s];
                }
            }
        }
        double sum = 0;
        for (int s = 0; s < n; s++) {
            double product = 0.95 * study[s] / scored + 0.05 / n;
            for (Look look : counted(one)) {
                product *= record(c, s, 0, look, rate);
            }
            sum += product;
        }
        return sum;
    }
}
