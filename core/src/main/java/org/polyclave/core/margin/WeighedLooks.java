package org.polyclave.core.margin;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;

/**
 * What was looked at, ready to be weighed against any danger: what readers who misread at some rate record of each state is
 * the same for all rows, and worked out once.
 */
public final class WeighedLooks {
    private static final double EVEN_SHARE = 0.05;

    private final Matrix matrix;
    private final SafetyDistributions distributions;
    private final List<Weighed> all = new ArrayList<>();
    /** The outermost parts, each once. */
    private final List<Integer> parts = new ArrayList<>();
    /** Number of the outermost part of each. */
    private final List<Integer> partOf = new ArrayList<>();

    WeighedLooks(Matrix matrix, SafetyDistributions distributions, List<CharacterLooks> looked) {
        this.matrix = matrix;
        this.distributions = distributions;
        for (int k = 0; k < looked.size(); k++) {
            add(new Weighed(looked.get(k)));
        }
    }

    /** Looks that were weighed before. */
    WeighedLooks(List<Weighed> weighed, Matrix matrix, SafetyDistributions distributions) {
        this.matrix = matrix;
        this.distributions = distributions;
        for (int k = 0; k < weighed.size(); k++) {
            add(weighed.get(k));
        }
    }

    private WeighedLooks(WeighedLooks other) {
        matrix = other.matrix;
        distributions = other.distributions;
        all.addAll(other.all);
        parts.addAll(other.parts);
        partOf.addAll(other.partOf);
    }

    private void add(Weighed weighed) {
        all.add(weighed);
        int outermost = matrix.character(weighed.looked.character()).outermostPart();
        if (!parts.contains(outermost)) {
            parts.add(outermost);
        }
        partOf.add(parts.indexOf(outermost));
    }

    /** The same with one more look. */
    WeighedLooks with(int character, Look look) {
        WeighedLooks more = new WeighedLooks(this);
        for (int k = 0; k < all.size(); k++) {
            CharacterLooks before = all.get(k).looked;
            if (before.character() == character) {
                List<Look> looks = new ArrayList<>(before.looks());
                looks.add(look);
                more.all.set(k, more.new Weighed(new CharacterLooks(character, looks, before.rough())));
                return more;
            }
        }
        List<Look> first = new ArrayList<>();
        first.add(look);
        more.add(more.new Weighed(new CharacterLooks(character, first, false)));
        return more;
    }

    /** Number of characters that were looked at. */
    public int size() {
        return all.size();
    }

    int partCount() {
        return parts.size();
    }

    Weighed get(int k) {
        return all.get(k);
    }

    int partOf(int k) {
        return partOf.get(k);
    }

    /** How many looks there are at a character. */
    public int times(int character) {
        for (int k = 0; k < all.size(); k++) {
            if (all.get(k).looked.character() == character) {
                return all.get(k).looked.looks().size();
            }
        }
        return 0;
    }

    /** The looks at one character. */
    final class Weighed {
        final CharacterLooks looked;

        private final List<AtRate> atRates = new ArrayList<>();

        Weighed(CharacterLooks looked) {
            this.looked = looked;
        }

        int count() {
            return looked.looks().size() < CharacterLooks.MOST ? looked.looks().size() : CharacterLooks.MOST;
        }

        /** Probability of all looks for a specimen of a row, which draws its state once. */
        double sum(int row, double rate) {
            double[] shares = distributions.shares(row, looked.character());
            boolean mistaken = matrix.cell(row, looked.character()) instanceof Cell.Categorical shown
                    && shown.readable() != shown.support();
            double[] given = mistaken ? given(row, rate) : at(rate).given;
            double sum = 0;
            for (int s = 0; s < shares.length; s++) {
                sum += shares[s] * given[s];
            }
            return sum;
        }

        /** The same for a specimen of the study, whichever row it is of. */
        double background(double rate) {
            return at(rate).background;
        }

        private AtRate at(double rate) {
            for (int k = 0; k < atRates.size(); k++) {
                if (atRates.get(k).rate == rate) {
                    return atRates.get(k);
                }
            }
            double[] given = given(-1, rate);
            double[] study = distributions.ofStudy(looked.character());
            double background = 0;
            for (int s = 0; s < study.length; s++) {
                background += ((1 - EVEN_SHARE) * study[s] + EVEN_SHARE / study.length) * given[s];
            }
            AtRate found = new AtRate(rate, given, background);
            atRates.add(found);
            return found;
        }

        /** Of each state, how likely readers are to record all looks. */
        private double[] given(int row, double rate) {
            double[] given = new double[distributions.ofStudy(looked.character()).length];
            for (int s = 0; s < given.length; s++) {
                given[s] = 1;
                for (int l = 0; l < count(); l++) {
                    Look look = looked.looks().get(l);
                    given[s] *= distributions.recorded(
                            row, looked.character(), s, look.observation(), misreading(look, rate));
                }
            }
            return given;
        }

        private double misreading(Look look, double rate) {
            double of = look.certainty() == Certainty.SURE ? rate : 2 * rate;
            return of < SafetyMargin.MOST_MISREADING ? of : SafetyMargin.MOST_MISREADING;
        }
    }

    private record AtRate(double rate, double[] given, double background) {}
}
