package org.polyclave.core.statistics;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.measuring.IndividualMeans;

/**
 * Data sets with certified values from the Statistical Reference Datasets of the National Institute of Standards and
 * Technology (Gaithersburg, Maryland; J. Rogers, J. Filliben, L. Gill, W. Guthrie, E. Lagergren, M. Vangel, 1998):
 * Michelso, NumAcc1 to NumAcc4 (univariate), SiRstv (analysis of variance) and Norris (linear regression).
 */
final class CertifiedDataTest {
    private static final double RELATIVE = 1e-9;

    /** A. A. Michelson's velocity of light in air, 1879, in thousands of km/s; less 299, in the last three figures. */
    private static final String MICHELSO = """
            850 740 900 1070 930 850 950 980 980 880 1000 980 930 650 760 810 1000 1000 960 960
            960 940 960 940 880 800 850 880 900 840 830 790 810 880 880 830 800 790 760 800
            880 880 880 860 720 720 620 860 970 950 880 910 850 870 840 840 850 840 840 840
            890 810 810 820 800 770 760 740 750 760 910 920 890 860 880 720 840 850 850 780
            890 840 780 810 760 810 790 810 820 850 870 870 810 740 810 940 950 800 810 870""";

    /** M. Ehrstein and M. Croarkin, resistivity of silicon by five instruments, five repetitions each. */
    private static final String SI_RSTV = """
            196.3052 196.1240 196.1890 196.2569 196.3403
            196.3042 196.3825 196.1669 196.3257 196.0422
            196.1303 196.2005 196.2889 196.0343 196.1811
            196.2795 196.1748 196.1494 196.1485 195.9885
            196.2119 196.1051 196.1850 196.0052 196.2090""";

    /** J. Norris, calibration of ozone monitors: y and x in turn. */
    private static final String NORRIS = """
            0.1 0.2 338.8 337.4 118.1 118.2 888.0 884.6 9.2 10.1 228.1 226.5 668.5 666.3 998.5 996.3 449.1 448.6
            778.9 777.0 559.2 558.2 0.3 0.4 0.1 0.6 778.1 775.5 668.8 666.9 339.3 338.0 448.9 447.5 10.8 11.6
            557.7 556.0 228.3 228.1 998.0 995.8 888.8 887.6 119.6 120.2 0.3 0.3 0.6 0.3 557.6 556.8 339.3 339.1
            888.0 887.2 998.5 999.0 778.9 779.0 10.2 11.1 117.6 118.3 228.9 229.2 668.4 669.1 449.2 448.9 0.2 0.5""";

    private static double[] numbers(String text) {
        return Arrays.stream(text.strip().split("\\s+"))
                .mapToDouble(Double::parseDouble)
                .toArray();
    }

    private static Offset<Double> relativeTo(double certified) {
        return Offset.offset(Math.abs(certified) * RELATIVE);
    }

    @Test
    void meanAndStandardDeviationOfMichelso() {
        double[] values =
                Arrays.stream(numbers(MICHELSO)).map(v -> (299_000 + v) / 1000).toArray();
        Summary summary = Summary.of(values);
        assertThat(summary.n()).isEqualTo(100);
        assertThat(summary.mean()).isCloseTo(299.8524, relativeTo(299.8524));
        assertThat(summary.sd()).isCloseTo(0.0790105478190518, relativeTo(0.0790105478190518));
        assertThat(summary.median()).isCloseTo(299.85, relativeTo(299.85));
        assertThat(summary.min()).isEqualTo(299.62);
        assertThat(summary.max()).isEqualTo(300.07);
    }

    /** Values that differ in their last digits only: a sum of squares loses all of them. */
    @ParameterizedTest
    @CsvSource({
        "10000002,   10000001,  10000003,     3, 10000002, 1",
        "1.2,        1.1,       1.3,       1001, 1.2, 0.1",
        "1000000.2,  1000000.1, 1000000.3, 1001, 1000000.2, 0.1",
        "10000000.2, 10000000.1, 10000000.3, 1001, 10000000.2, 0.1"
    })
    void meanAndStandardDeviationOfNumAcc(double first, double low, double high, int n, double mean, double sd) {
        double[] values = new double[n];
        for (int i = 0; i < n; i++) {
            values[i] = i == 0 ? first : i % 2 == 1 ? low : high;
        }
        Summary summary = Summary.of(values);
        assertThat(summary.mean()).isCloseTo(mean, relativeTo(mean));
        // A double holds 10000000.1 to 2e-9: of a difference of 0.1 no more than eight figures are in the data
        // themselves.
        double inTheData = Math.ulp(high) / sd;
        assertThat(summary.sd()).isCloseTo(sd, Offset.offset(sd * Math.max(RELATIVE, inTheData)));
    }

    @Test
    void repeatabilityOfSiRstv() {
        List<IndividualMeans.ItemValue> readings = new ArrayList<>();
        double[] values = numbers(SI_RSTV);
        for (int i = 0; i < values.length; i++) {
            readings.add(new IndividualMeans.ItemValue("instrument " + i / 5, "wafer", values[i]));
        }
        double certified = 0.104076068334656;
        assertThat(IndividualMeans.repeatability(readings)).isCloseTo(certified, relativeTo(certified));
    }

    @Test
    void lineThroughNorris() {
        double[] both = numbers(NORRIS);
        double[] x = new double[both.length / 2];
        double[] y = new double[both.length / 2];
        for (int i = 0; i < x.length; i++) {
            y[i] = both[2 * i];
            x[i] = both[2 * i + 1];
        }
        Line line = Line.through(x, y);
        assertThat(line.n()).isEqualTo(36);
        assertThat(line.intercept()).isCloseTo(-0.262323073774029, relativeTo(0.262323073774029));
        assertThat(line.slope()).isCloseTo(1.00211681802045, relativeTo(1.00211681802045));
        assertThat(line.residualSd()).isCloseTo(0.884796396144373, relativeTo(0.884796396144373));
        assertThat(line.slopeError()).isCloseTo(0.000429796848199937, relativeTo(0.000429796848199937));
        assertThat(line.interceptError()).isCloseTo(0.232818234301152, relativeTo(0.232818234301152));
    }

    /** NIST/SEMATECH e-Handbook of Statistical Methods, 7.2.6.3: 43 pieces, 90 % of all with 99 % confidence. */
    @Test
    void toleranceFactorOfTheHandbook() {
        assertThat(ChiSquare.normalPoint(0.95)).isCloseTo(1.645, Offset.offset(0.0005));
        assertThat(ChiSquare.point(0.01, 42)).isCloseTo(23.650, Offset.offset(0.0005));
        assertThat(Tolerance.factor(43, 0.95, 0.01)).isCloseTo(2.217, Offset.offset(0.0005));
    }
}
