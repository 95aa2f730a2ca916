package org.polyclave.print.label;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.polyclave.print.page.Templates;
import org.polyclave.print.pdf.PdfPage;

/** Labels side by side on sheets of A4, as large as the boxes that they go into. */
public final class LabelSheet {
    private static final double PAPER = 210;
    public static final double MARGIN = 8;
    /** Millimetres of a point. */
    private static final double POINT = 25.4 / 72;

    public static final double LEADING = 1.15;
    /** Width of a letter, of its height. */
    private static final double LETTER = 0.52;

    public static final double PADDING = 1;
    private static final double SMALLEST = 3;
    private static final double FINER = 0.25;

    private LabelSheet() {}

    /** Sizes in mm, with the size of their type in points. */
    public enum Size {
        VIAL(30, 12, 4),
        PIN(42, 18, 4.5),
        BOX(60, 28, 6),
        SHEET(95, 48, 8.5);

        private final double width;
        private final double height;
        private final double type;

        Size(double width, double height, double type) {
            this.width = width;
            this.height = height;
            this.type = type;
        }

        /** What is written on, between the paddings, in mm. */
        public double innerWidth() {
            return width - 2 * PADDING;
        }

        /** In mm, with the paddings: as cells of a table have it. */
        public double height() {
            return height;
        }
    }

    /** @param type size in points in which it is set */
    public record SetLabel(Label label, double type) {}

    /** What does not fit is set smaller, down to {@value #SMALLEST} points; then the label grows. Nothing is cut off. */
    public static byte[] pdf(List<Label> labels, Size size) {
        int across = (int) ((PAPER - 2 * MARGIN) / size.width);
        List<List<SetLabel>> lines = new ArrayList<>();
        for (int i = 0; i < labels.size(); i += across) {
            lines.add(labels.subList(i, Math.min(labels.size(), i + across)).stream()
                    .map(label -> new SetLabel(label, type(label, size)))
                    .toList());
        }
        return PdfPage.of(Templates.render("label/sheet", Map.of("size", size, "lines", lines)));
    }

    /** The largest type in which all of a label fits, by the usual width of letters. */
    static double type(Label label, Size size) {
        double type = size.type;
        while (type > SMALLEST && height(label, size, type) > size.height - 2 * PADDING) {
            type -= FINER;
        }
        return type;
    }

    private static double height(Label label, Size size, double type) {
        double letters = Math.max(1, Math.floor((size.width - 2 * PADDING) / (LETTER * type * POINT)));
        double lines = 1
                + (label.name().isEmpty()
                        ? 0
                        : Math.ceil(
                                (label.qualifier().length() + 1 + label.name().length()) / letters));
        for (String line : label.lines()) {
            lines += Math.ceil(line.length() / letters);
        }
        return lines * type * POINT * LEADING;
    }
}
