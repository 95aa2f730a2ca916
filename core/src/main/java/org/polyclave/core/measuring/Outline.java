package org.polyclave.core.measuring;

import org.polyclave.core.statistics.Sums;

/**
 * What marks on a picture measure, in pixels, with the standard uncertainty that comes of placing each point to
 * {@link PictureScale#END} pixel in either direction: to first order and for independent points (JCGM 100:2008, 5.1.2), the
 * root of the summed squares of the gradient at each point. Time and memory linear in the points.
 *
 * @param size in pixels, square pixels or degrees
 * @param uncertainty of it
 */
public record Outline(double size, double uncertainty) {
    /**
     * Length of a line through points. A curve is as long as the chords between them, so put points closer where it bends.
     *
     * @param x at least two
     * @param y as many
     * @throws IllegalArgumentException for fewer points, or if all lie in one place
     */
    public static Outline length(double[] x, double[] y) {
        requirePoints(x, y, 2);
        int n = x.length;
        double length = 0;
        double[] gradientX = new double[n];
        double[] gradientY = new double[n];
        for (int i = 1; i < n; i++) {
            double dx = x[i] - x[i - 1];
            double dy = y[i] - y[i - 1];
            double chord = Math.hypot(dx, dy);
            length += chord;
            if (chord > 0) {
                gradientX[i] += dx / chord;
                gradientY[i] += dy / chord;
                gradientX[i - 1] -= dx / chord;
                gradientY[i - 1] -= dy / chord;
            }
        }
        requireSize(length);
        return new Outline(length, uncertainty(gradientX, gradientY));
    }

    /**
     * Angle at the second of three points, 0 to 180 degrees.
     *
     * @throws IllegalArgumentException for other numbers of points, or if an arm has no length
     */
    public static Outline angle(double[] x, double[] y) {
        requirePoints(x, y, 3);
        if (x.length > 3) {
            throw new IllegalArgumentException("An angle has three points, not " + x.length);
        }
        double ax = x[0] - x[1];
        double ay = y[0] - y[1];
        double bx = x[2] - x[1];
        double by = y[2] - y[1];
        double a = Math.hypot(ax, ay);
        double b = Math.hypot(bx, by);
        requireSize(Math.min(a, b));
        double turn = Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
        // An arm's end turns the arm by its way across, over the arm's length; the corner turns both.
        double[] gradientX = {ay / (a * a), 0, -by / (b * b)};
        double[] gradientY = {-ax / (a * a), 0, bx / (b * b)};
        gradientX[1] = -gradientX[0] - gradientX[2];
        gradientY[1] = -gradientY[0] - gradientY[2];
        return new Outline(Math.toDegrees(Math.abs(turn)), Math.toDegrees(uncertainty(gradientX, gradientY)));
    }

    /**
     * Area within a closed outline that does not cross itself, in square pixels.
     *
     * @throws IllegalArgumentException for fewer than three points, or if all lie on a line
     */
    public static Outline area(double[] x, double[] y) {
        requirePoints(x, y, 3);
        int n = x.length;
        double twice = 0;
        double[] gradientX = new double[n];
        double[] gradientY = new double[n];
        for (int i = 0; i < n; i++) {
            int next = (i + 1) % n;
            int last = (i + n - 1) % n;
            // Relative to the first point, so that the place in the picture costs no digits.
            twice += (x[i] - x[0]) * (y[next] - y[0]) - (x[next] - x[0]) * (y[i] - y[0]);
            gradientX[i] = (y[next] - y[last]) / 2;
            gradientY[i] = (x[last] - x[next]) / 2;
        }
        requireSize(Math.abs(twice));
        return new Outline(Math.abs(twice) / 2, uncertainty(gradientX, gradientY));
    }

    /** Diameter of the circle of an area, in pixels. */
    public Outline diameterOfArea() {
        double diameter = 2 * Math.sqrt(size / Math.PI);
        return new Outline(diameter, uncertainty / size * diameter / 2);
    }

    private static double uncertainty(double[] gradientX, double[] gradientY) {
        Sums squares = new Sums();
        for (int i = 0; i < gradientX.length; i++) {
            squares.add(gradientX[i] * gradientX[i] + gradientY[i] * gradientY[i]);
        }
        return PictureScale.END * Math.sqrt(squares.total());
    }

    private static void requirePoints(double[] x, double[] y, int fewest) {
        if (x.length < fewest || x.length != y.length) {
            throw new IllegalArgumentException("At least " + fewest + " points are needed, not " + x.length);
        }
    }

    private static void requireSize(double size) {
        if (!(size > 0) || !Double.isFinite(size)) {
            throw new IllegalArgumentException("The points lie in one place, or on one line");
        }
    }
}
