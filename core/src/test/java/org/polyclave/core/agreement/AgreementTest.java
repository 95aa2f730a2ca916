package org.polyclave.core.agreement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

final class AgreementTest {
    private static final double X = Double.NaN;
    /** Four observers, twelve units: K. Krippendorff, Computing Krippendorff's alpha-reliability (2011), section C. */
    private static final double[][] KRIPPENDORFF = {
        {1, 2, 3, 3, 2, 1, 4, 1, 2, X, X, X},
        {1, 2, 3, 3, 2, 2, 4, 1, 2, 5, X, 3},
        {X, 3, 3, 3, 2, 3, 4, 2, 2, 5, 1, X},
        {1, 2, 3, 3, 2, 4, 4, 1, 2, 5, 1, X}
    };

    @Test
    void alphaAgreesWithThePublishedExample() {
        assertThat(Agreement.of(KRIPPENDORFF, Agreement.Scale.NOMINAL).alpha()).isCloseTo(0.743, within(5e-4));
        assertThat(Agreement.of(KRIPPENDORFF, Agreement.Scale.ORDINAL).alpha()).isCloseTo(0.815, within(5e-4));
        assertThat(Agreement.of(KRIPPENDORFF, Agreement.Scale.INTERVAL).alpha()).isCloseTo(0.849, within(5e-4));
        assertThat(Agreement.of(KRIPPENDORFF, Agreement.Scale.NOMINAL).units()).isEqualTo(11);
        assertThat(Agreement.of(KRIPPENDORFF, Agreement.Scale.NOMINAL).kappa()).isNaN();
    }

    /** Two observers, ten units, two values: the same paper, section A. */
    @Test
    void alphaOfTwoScorersAgreesWithThePublishedExample() {
        double[][] two = {{0, 1, 0, 0, 0, 0, 0, 0, 1, 0}, {1, 1, 1, 0, 0, 1, 0, 0, 0, 0}};
        Agreement.Result result = Agreement.of(two, Agreement.Scale.NOMINAL);
        assertThat(result.alpha()).isCloseTo(0.095, within(5e-4));
        assertThat(result.percent()).isEqualTo(0.6);
        assertThat(result.differing()).isEqualTo(4);
    }

    /** Of 50 units both say yes to 20 and no to 15; worked by hand: (0.7 − 0.5) / (1 − 0.5). */
    @Test
    void kappaIsWhatIsLeftOfAgreementWithoutChance() {
        double[][] two = new double[2][50];
        for (int u = 0; u < 50; u++) {
            two[0][u] = u < 25 ? 1 : 0;
            two[1][u] = u < 20 || u >= 40 ? 1 : 0;
        }
        assertThat(Agreement.of(two, Agreement.Scale.NOMINAL).kappa()).isCloseTo(0.4, within(1e-12));
    }

    @Test
    void nothingIsSaidWhereNothingVariesOrNobodyRatedTwice() {
        Agreement.Result same = Agreement.of(new double[][] {{2, 2, 2}, {2, 2, X}}, Agreement.Scale.NOMINAL);
        assertThat(same.percent()).isEqualTo(1);
        assertThat(same.kappa()).isNaN();
        assertThat(same.alpha()).isNaN();
        Agreement.Result alone = Agreement.of(new double[][] {{1, X}, {X, 2}}, Agreement.Scale.INTERVAL);
        assertThat(alone.units()).isZero();
        assertThat(alone.percent()).isNaN();
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Agreement.of(new double[][] {{1}, {1, 2}}, Agreement.Scale.NOMINAL));
    }

    /** Names of values and the order of scorers and units do not matter; full agreement is 1 and no figure is above. */
    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20})
    void figuresDoNotDependOnNamesAndOrder(int seed) {
        Random random = new Random(seed);
        int units = 5 + random.nextInt(20);
        double[][] two = new double[2][units];
        double[][] renamed = new double[2][units];
        for (int u = 0; u < units; u++) {
            for (int s = 0; s < 2; s++) {
                double value = random.nextInt(10) == 0 ? X : random.nextInt(3);
                two[s][u] = value;
                renamed[1 - s][units - 1 - u] = 7 - 2 * value;
            }
        }
        Agreement.Result here = Agreement.of(two, Agreement.Scale.NOMINAL);
        Agreement.Result there = Agreement.of(renamed, Agreement.Scale.NOMINAL);
        assertThat(there.alpha()).isCloseTo(here.alpha(), within(1e-12));
        assertThat(there.kappa()).isCloseTo(here.kappa(), within(1e-12));
        assertThat(here.alpha()).isLessThanOrEqualTo(1);
        double[][] copied = {two[0], two[0].clone()};
        assertThat(Agreement.of(copied, Agreement.Scale.ORDINAL).alpha()).isCloseTo(1, within(1e-12));
    }
}
