package org.polyclave.print.label;

import java.util.List;
import java.util.Locale;
import org.polyclave.print.pdf.PdfPage;

/** Labels side by side on sheets of A4, as large as the boxes that they go into. */
public final class LabelSheet {
    private static final double PAPER = 210;
    private static final double MARGIN = 8;
    /** Millimetres of a point. */
    private static final double POINT = 25.4 / 72;

    private static final double LEADING = 1.15;
    /** Width of a letter, of its height. */
    private static final double LETTER = 0.52;

    private static final double PADDING = 1;
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
    }

    /** What does not fit is set smaller, down to {@value #SMALLEST} points; then the label grows. Nothing is cut off. */
    public static byte[] pdf(List<Label> labels, Size size) {
        int across = (int) ((PAPER - 2 * MARGIN) / size.width);
        StringBuilder html = new StringBuilder(String.format(
                Locale.ROOT,
                "<html><head><title>Labels</title><style>@page{size:A4;margin:%smm}"
                        + "body{font-family:page-sans;margin:0}table{border-collapse:collapse;table-layout:fixed}"
                        + "tr{page-break-inside:avoid}td{width:%smm;height:%smm;padding:%smm;border:0.2mm solid #777;"
                        + "vertical-align:top;line-height:%s}b,i,span{display:block}i{font-family:page-serif}</style></head>"
                        + "<body><table>",
                MARGIN,
                size.width - 2 * PADDING,
                size.height,
                PADDING,
                LEADING));
        for (int i = 0; i < labels.size(); i++) {
            html.append(i % across == 0 ? "<tr>" : "");
            write(html, labels.get(i), size);
            html.append(i % across == across - 1 || i == labels.size() - 1 ? "</tr>" : "");
        }
        return PdfPage.of(html.append("</table></body></html>").toString());
    }

    private static void write(StringBuilder html, Label label, Size size) {
        html.append(String.format(Locale.ROOT, "<td style=\"font-size:%spt\"><b>", type(label, size)))
                .append(PdfPage.escaped(label.code()))
                .append("</b>");
        if (!label.name().isEmpty()) {
            html.append("<i>").append(PdfPage.escaped(label.name())).append("</i>");
        }
        label.lines()
                .forEach(line ->
                        html.append("<span>").append(PdfPage.escaped(line)).append("</span>"));
        html.append("</td>");
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
        double lines = 1 + (label.name().isEmpty() ? 0 : Math.ceil(label.name().length() / letters));
        for (String line : label.lines()) {
            lines += Math.ceil(line.length() / letters);
        }
        return lines * type * POINT * LEADING;
    }
}
