package org.polyclave.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

class PortableMathTest {
    @Test
    void agreesWithTheReferenceWithinOneUlp() {
        Random random = new Random(1);
        for (int i = 0; i < 200_000; i++) {
            double x = Math.scalb(random.nextDouble() + 0.5, random.nextInt(600) - 300);
            assertWithinOneUlp(PortableMath.ln(x), StrictMath.log(x));
            double y = (random.nextDouble() - 0.5) * 1400;
            assertWithinOneUlp(PortableMath.exp(y), StrictMath.exp(y));
            assertWithinOneUlp(PortableMath.atan(y), StrictMath.atan(y));
            assertWithinOneUlp(PortableMath.atan(y / 500), StrictMath.atan(y / 500));
        }
    }

    private static void assertWithinOneUlp(double actual, double expected) {
        assertThat(Math.abs(actual - expected)).isLessThanOrEqualTo(Math.ulp(expected));
    }

    @Test
    void edges() {
        assertThat(PortableMath.ln(0)).isEqualTo(Double.NEGATIVE_INFINITY);
        assertThat(PortableMath.ln(1)).isZero();
        assertThat(PortableMath.ln(-1)).isNaN();
        assertThat(PortableMath.log2(8)).isCloseTo(3, within(1e-15));
        assertThat(PortableMath.exp(-1000)).isZero();
        assertThat(PortableMath.exp(1000)).isInfinite();
        assertThat(PortableMath.exp2(10)).isCloseTo(1024, within(1e-12));
    }
}
