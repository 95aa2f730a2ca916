package org.polyclave.print.card;

import java.util.Locale;
import java.util.Objects;
import java.util.stream.Stream;
import org.polyclave.wording.comparison.ContrastCard.CutView;
import org.polyclave.wording.comparison.ContrastCard.PointView;
import org.polyclave.wording.comparison.ContrastCard.ShownCell;
import org.polyclave.wording.comparison.ContrastCard.SpanView;

/** The ranges of a character on one scale, one bar for each row: with the cut, and where not to decide. */
final class RangeSketch {
    private static final double WIDTH = 100;
    private static final double HEIGHT = 10;
    private static final double MARGIN = 2;
    private static final double EM = 0.1;

    private final PointView point;
    private final double from;
    private final double perUnit;

    RangeSketch(PointView point) {
        this.point = point;
        from = spans(point).mapToDouble(SpanView::min).min().orElse(0);
        double to = spans(point).mapToDouble(SpanView::max).max().orElse(1);
        perUnit = to > from ? (WIDTH - 2 * MARGIN) / (to - from) : 0;
    }

    private static Stream<SpanView> spans(PointView point) {
        return point.cells().stream().map(ShownCell::range).filter(Objects::nonNull);
    }

    /** A drawing, or nothing where a row has no range. */
    String of(ShownCell cell) {
        SpanView span = cell.range();
        if (span == null) {
            return "";
        }
        StringBuilder svg = new StringBuilder(String.format(
                Locale.ROOT,
                "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 %s %s\" style=\"width:%sem;height:%sem\">",
                WIDTH,
                HEIGHT,
                WIDTH * EM,
                HEIGHT * EM));
        for (CutView cut : point.cuts()) {
            if (cut.from() != null && cut.to() != null) {
                box(svg, cut.from(), cut.to(), HEIGHT, "#ddd8c8");
            }
        }
        box(svg, span.min(), span.max(), 1, "#2b2a26");
        box(svg, span.low(), span.high(), HEIGHT / 2, "#2b2a26");
        for (CutView cut : point.cuts()) {
            svg.append(String.format(
                    Locale.ROOT,
                    "<line x1=\"%1$.2f\" x2=\"%1$.2f\" y1=\"0\" y2=\"%2$.0f\" stroke=\"#2b2a26\" stroke-dasharray=\"1.5 1\"/>",
                    x(cut.at()),
                    HEIGHT));
        }
        return svg.append("</svg><br/>").toString();
    }

    private void box(StringBuilder svg, double low, double high, double height, String colour) {
        svg.append(String.format(
                Locale.ROOT,
                "<rect x=\"%.2f\" y=\"%.2f\" width=\"%.2f\" height=\"%.2f\" fill=\"%s\"/>",
                x(low),
                (HEIGHT - height) / 2,
                Math.max(1, x(high) - x(low)),
                height,
                colour));
    }

    private double x(double value) {
        return Math.max(0, Math.min(WIDTH, MARGIN + perUnit * (value - from)));
    }
}
