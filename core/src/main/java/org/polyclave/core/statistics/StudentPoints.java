package org.polyclave.core.statistics;

/** Points of Student's t at some shares, worked out once for each number of degrees of freedom: samples of one size share them. */
public final class StudentPoints {
    private final double[] shares;
    private final double[][] points = new double[StudentPredictive.MOST_DEGREES + 1][0];

    public StudentPoints(double[] shares) {
        this.shares = shares;
    }

    /** Do not modify. */
    public double[] of(int degrees) {
        if (points[degrees].length == 0) {
            double[] found = new double[shares.length];
            for (int k = 0; k < found.length; k++) {
                found[k] = StudentT.point(shares[k], degrees);
            }
            points[degrees] = found;
        }
        return points[degrees];
    }
}
