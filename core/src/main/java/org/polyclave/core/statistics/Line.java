package org.polyclave.core.statistics;

/**
 * The straight line of least squares, with what it foresees. Sums are taken about the means and compensated. Source: N. R.
 * Draper &amp; H. Smith, Applied Regression Analysis, 3rd ed. 1998, chapter 1.
 *
 * @param n pairs
 * @param residualSd standard deviation about the line, n − 2
 * @param meanX where the line is known best
 * @param spreadX sum of the squared distances of x from its mean
 */
public record Line(int n, double intercept, double slope, double residualSd, double meanX, double spreadX) {
    private static final double BOTH_TAILS_OUT = 0.975;

    /** @throws IllegalArgumentException for fewer than three pairs, or if no x differs */
    public static Line through(double[] x, double[] y) {
        if (x.length < 3 || x.length != y.length) {
            throw new IllegalArgumentException("A line takes three pairs: " + x.length + " and " + y.length);
        }
        double meanX = Sums.mean(x);
        double meanY = Sums.mean(y);
        Sums squares = new Sums();
        Sums products = new Sums();
        for (int i = 0; i < x.length; i++) {
            squares.add((x[i] - meanX) * (x[i] - meanX));
            products.add((x[i] - meanX) * (y[i] - meanY));
        }
        if (!(squares.total() > 0)) {
            throw new IllegalArgumentException("All x are " + x[0] + ": no line goes through them");
        }
        double slope = products.total() / squares.total();
        Sums residuals = new Sums();
        for (int i = 0; i < x.length; i++) {
            double off = y[i] - meanY - slope * (x[i] - meanX);
            residuals.add(off * off);
        }
        double sd = Math.sqrt(residuals.total() / (x.length - 2));
        return new Line(x.length, meanY - slope * meanX, slope, sd, meanX, squares.total());
    }

    public double at(double x) {
        return intercept + slope * x;
    }

    public double slopeError() {
        return residualSd / Math.sqrt(spreadX);
    }

    public double interceptError() {
        return residualSd * Math.sqrt(1.0 / n + meanX * meanX / spreadX);
    }

    /** Where the y of the next individual lies at x, with 95 % probability. */
    public Summary.Interval next(double x) {
        double distance = StudentT.point(BOTH_TAILS_OUT, n - 2) * errorOfNext(x);
        return new Summary.Interval(at(x) - distance, at(x) + distance);
    }

    /** Whether an individual lies where only a share of all would. */
    public boolean isUnforeseen(double x, double y, double share) {
        double t = Math.abs(y - at(x)) / errorOfNext(x);
        return 2 * (1 - StudentT.upTo(t, n - 2)) < share;
    }

    private double errorOfNext(double x) {
        double off = x - meanX;
        return residualSd * Math.sqrt(1 + 1.0 / n + off * off / spreadX);
    }
}
