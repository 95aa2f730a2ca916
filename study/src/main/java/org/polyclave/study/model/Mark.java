package org.polyclave.study.model;

import java.util.List;

/**
 * What was measured on a picture, in its pixels from the upper left corner.
 *
 * @param picture id of the picture
 * @param parts lists of points: one; two whose ratio is read (part, whole); or those of a set
 */
public record Mark(String picture, Shape shape, List<List<Point>> parts) {
    public Mark {
        parts = parts.stream().map(List::copyOf).toList();
    }

    public record Point(double x, double y) {}

    /** What the points of a mark are. */
    public enum Shape {
        /** Two ends. */
        LINE,
        /** Points along a curve. */
        PATH,
        /** A point on one arm, the corner, a point on the other arm. */
        ANGLE,
        /** Points around an area. */
        OUTLINE,
        /** One point for each thing that is counted. */
        COUNT,
        /** Lines, two ends each, of which the longest is read: the longest spine of a set. */
        LONGEST,
        /** Outlines of which the largest is read: the largest lobe of a leaf. */
        LARGEST;

        /** Whether each part is one of a set. */
        public boolean isSet() {
            return this == LONGEST || this == LARGEST;
        }
    }
}
