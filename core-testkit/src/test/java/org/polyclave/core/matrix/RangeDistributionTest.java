package org.polyclave.core.matrix;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;

class RangeDistributionTest {
    private static final double INF = Double.POSITIVE_INFINITY;
    private static final MatrixCharacter LENGTH = MatrixCharacter.of("l", CharacterType.LENGTH, 0, 0);
    private static final MatrixCharacter COUNT = MatrixCharacter.of("c", CharacterType.COUNT, 0, 0);

    private static RangeDistribution of(MatrixCharacter character, Cell.Numeric... ranges) {
        return RangeDistribution.of(List.of(ranges), character);
    }

    @Test
    void ninetyPercentLieInTheCoreAndTheTailsShareTheRestByWidth() {
        RangeDistribution d = of(LENGTH, new Cell.Numeric(2, 5, 9, 10));
        assertThat(d.share(5, 9)).isCloseTo(0.9, within(1e-12));
        assertThat(d.share(2, 5)).isCloseTo(0.075, within(1e-12));
        assertThat(d.share(9, 10)).isCloseTo(0.025, within(1e-12));
        assertThat(d.share(-INF, INF)).isCloseTo(1, within(1e-12));
        assertThat(of(LENGTH, Cell.Numeric.range(5, 9)).share(5, 6)).isCloseTo(0.25, within(1e-12));
    }

    @Test
    void countsGiveWholeShares() {
        RangeDistribution d = of(COUNT, Cell.Numeric.range(4, 7));
        assertThat(d.share(3.5, 4.5)).isCloseTo(0.25, within(1e-12));
        assertThat(d.share(-INF, 5.5)).isCloseTo(0.5, within(1e-12));
    }

    @Test
    void aSingleValueIsAStep() {
        RangeDistribution d = of(LENGTH, Cell.Numeric.range(6, 6));
        assertThat(d.share(5, 6)).isEqualTo(1);
        assertThat(d.share(6, 7)).isZero();
        assertThat(d.within(6, 6)).isEqualTo(1);
    }

    @Test
    void mixturesAverage() {
        RangeDistribution d =
                of(LENGTH, Cell.Numeric.range(0, 10), Cell.Numeric.range(5, 6), Cell.Numeric.range(20, 20));
        assertThat(d.share(5, 6)).isCloseTo((0.1 + 1 + 0) / 3, within(1e-12));
        assertThat(d.share(10, INF)).isCloseTo(1 / 3.0, within(1e-12));
    }
}
