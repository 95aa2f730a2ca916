package org.polyclave.core.separation;

import org.polyclave.core.matrix.Cell;
import org.polyclave.core.statistics.Measured;
import org.polyclave.core.statistics.Summary;
import org.polyclave.core.statistics.Tolerance;

/**
 * From where to where numbers of a row go.
 *
 * @param least what was recorded; of fewer than {@link Tolerance#ENOUGH} measured individuals as far as others may be expected
 * @param low where the usual begins
 * @param high where it ends
 * @param most as {@code least}
 */
record ToleranceExtent(double least, double low, double high, double most) {
    static ToleranceExtent of(Cell.Numeric range) {
        if (range.measured().isEmpty() || range.measured().get().individuals() >= Tolerance.ENOUGH) {
            return new ToleranceExtent(range.min(), range.low(), range.high(), range.max());
        }
        Measured measured = range.measured().get();
        Summary.Interval expected = Tolerance.of(measured.individuals(), measured.mean(), measured.sd());
        return new ToleranceExtent(
                Math.min(range.min(), expected.low()),
                range.low(),
                range.high(),
                Math.max(range.max(), expected.high()));
    }
}
