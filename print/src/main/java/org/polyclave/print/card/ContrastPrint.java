package org.polyclave.print.card;

import java.util.List;
import java.util.Optional;
import java.util.function.DoubleFunction;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.polyclave.core.separation.Verdict;
import org.polyclave.print.pdf.PdfPage;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.wording.comparison.ContrastCard;
import org.polyclave.wording.comparison.ContrastCard.PointView;
import org.polyclave.wording.comparison.ContrastCard.ShownCell;
import org.polyclave.wording.comparison.ContrastWording;
import org.polyclave.wording.key.KeyView.NameView;

/** A contrast card on paper: a plate of one page, or a card for the wallet. */
public final class ContrastPrint {
    private static final int PLATE_POINTS = 12;
    private static final int WALLET_POINTS = 3;
    private static final int YEAR = 12;
    /** The longer side of a picture, in the height of the type. */
    private static final double PICTURE = 5.5;

    /** Points. */
    private static final double PLATE_TYPE = 10.5;

    private static final double WALLET_TYPE = 6;
    private static final double SMALLEST = 3;
    private static final double FINER = 0.5;
    private static final String CAUTION =
            "An identification by this card is not permission to eat, touch or collect anything. Local rules and qualified people decide.";

    private ContrastPrint() {}

    /**
     * What stands on paper besides the card.
     *
     * @param pictures finds a picture by its id in the study
     */
    public record Imprint(
            String study, String date, boolean plain, Function<String, Optional<PrintedPicture>> pictures) {}

    /** One page of A4: the most trustworthy points, what is left out is counted. */
    public static byte[] plate(ContrastCard card, Imprint imprint) {
        return onOnePage(PLATE_TYPE, type -> plate(card, imprint, type));
    }

    private static String plate(ContrastCard card, Imprint imprint, double type) {
        StringBuilder html = page("A4", "12mm", type)
                .append("<h1>")
                .append(names(card.names()))
                .append("</h1>");
        card.names().forEach(n -> html.append(hazard(n)));
        html.append("<p class=\"line\">").append(escaped(answer(card, imprint))).append("</p><table><tr><td></td>");
        card.names().forEach(n -> html.append("<th>").append(name(n)).append("</th>"));
        html.append("<th>How, and when</th></tr>");
        card.points().stream().limit(PLATE_POINTS).forEach(p -> html.append(row(p, card.names(), imprint)));
        html.append("</table>");
        int more = card.points().size() - PLATE_POINTS;
        if (more > 0) {
            html.append("<p>Left out: ").append(more).append(" more that differ.</p>");
        }
        if (!card.shared().isEmpty()) {
            html.append("<p><b>The same in all, useless here:</b> ")
                    .append(escaped(card.shared().stream()
                            .limit(PLATE_POINTS)
                            .map(p -> ContrastWording.decapitalised(p.subject()))
                            .collect(Collectors.joining(", "))))
                    .append(".</p>");
        }
        card.pairs().stream()
                .filter(p -> p.verdict() != Verdict.FIRM)
                .limit(WALLET_POINTS)
                .forEach(p -> html.append("<p><b>")
                        .append(name(card.names().get(p.first())))
                        .append(" / ")
                        .append(name(card.names().get(p.second())))
                        .append(":</b> ")
                        .append(escaped(p.settles()))
                        .append("</p>"));
        return end(html, imprint);
    }

    /** As large as a bank card. */
    public static byte[] wallet(ContrastCard card, Imprint imprint) {
        return onOnePage(WALLET_TYPE, type -> wallet(card, imprint, type));
    }

    private static String wallet(ContrastCard card, Imprint imprint, double type) {
        StringBuilder html = page("85.6mm 54mm", "3mm", type)
                .append("<h1>")
                .append(names(card.names()))
                .append("</h1><table><tr><td></td>");
        card.names().forEach(n -> html.append("<th>").append(name(n)).append("</th>"));
        html.append("</tr>");
        card.points().stream().limit(WALLET_POINTS).forEach(p -> {
            html.append("<tr><td>").append(escaped(p.subject())).append("</td>");
            p.cells()
                    .forEach(c -> html.append("<td>")
                            .append(escaped(words(c, imprint)))
                            .append("</td>"));
            html.append("</tr>");
        });
        html.append("</table>");
        card.names().forEach(n -> html.append(hazard(n)));
        card.pairs().stream()
                .filter(p -> p.verdict() != Verdict.FIRM)
                .limit(1)
                .forEach(p -> html.append("<p>").append(escaped(p.settles())).append("</p>"));
        return end(html, imprint);
    }

    /** In the largest type in which all of it stands on one page; nothing is cut off. */
    private static byte[] onOnePage(double largest, DoubleFunction<String> page) {
        byte[] pdf = PdfPage.of(page.apply(largest));
        for (double type = largest - FINER; type >= SMALLEST && PdfPage.count(pdf) > 1; type -= FINER) {
            pdf = PdfPage.of(page.apply(type));
        }
        return pdf;
    }

    private static StringBuilder page(String size, String margin, double type) {
        return new StringBuilder(
                "<html><head><title>Contrast card</title><style>@page{size:" + size + ";margin:" + margin
                        + "}body{font-family:page-sans;font-size:" + type + "pt;margin:0;line-height:1.25}"
                        + "h1{font-family:page-serif;font-size:1.5em;margin:0 0 0.3em}h1 i,th i,p i{font-family:page-serif}"
                        + "p{margin:0.4em 0}p.line{font-size:1.1em}p.hazard{font-weight:bold;margin:0.15em 0}"
                        + "table{border-collapse:collapse;width:100%}th,td{border:0.2mm solid #777;padding:0.25em 0.4em;"
                        + "text-align:left;vertical-align:top}td svg,td img{vertical-align:middle}p.foot{color:#444;font-size:0.85em}</style></head><body>");
    }

    private static String end(StringBuilder html, Imprint imprint) {
        html.append("<p class=\"foot\">")
                .append(CAUTION)
                .append(' ')
                .append(escaped(imprint.study()))
                .append(", ")
                .append(escaped(imprint.date()))
                .append(".</p></body></html>");
        return html.toString();
    }

    private static String names(List<NameView> names) {
        return names.stream().map(ContrastPrint::name).collect(Collectors.joining(" / "));
    }

    private static String plainName(NameView name) {
        return name.label() + (name.stage().isEmpty() ? "" : ", " + name.stage());
    }

    private static String name(NameView name) {
        return "<i>" + escaped(name.label()) + "</i>" + (name.stage().isEmpty() ? "" : ", " + escaped(name.stage()));
    }

    /** Danger is told by words, beside a sign. */
    private static String hazard(NameView name) {
        return switch (name.hazard()) {
            case NONE_KNOWN -> "";
            case NOT_ASSESSED -> "<p>" + name(name) + ": hazard not assessed.</p>";
            default -> "<p class=\"hazard\">! " + name(name) + ": " + escaped(name.hazardText()) + "</p>";
        };
    }

    private static String answer(ContrastCard card, Imprint imprint) {
        String line = imprint.plain() ? card.answer().plain() : card.answer().technical();
        return line.isEmpty() ? "Nothing that can be seen now separates them." : line;
    }

    private static String row(PointView point, List<NameView> names, Imprint imprint) {
        String kind = switch (point.kind()) {
            case SEPARATES, SHARED -> "";
            case SO_FAR -> " (so far, of few individuals)";
            case TENDENCY -> " (usually)";
        };
        List<List<PrintedPicture>> pictures =
                point.cells().stream().map(c -> pictures(c, imprint)).toList();
        // One scale for all pictures of a character, so that large beside small looks so.
        double scale = PICTURE
                / pictures.stream()
                        .flatMap(List::stream)
                        .mapToInt(p -> Math.max(p.width(), p.height()))
                        .max()
                        .orElse(1);
        RangeSketch ranges = new RangeSketch(point);
        String cells = IntStream.range(0, point.cells().size())
                .mapToObj(i -> "<td>"
                        + pictures.get(i).stream().map(p -> p.html(scale)).collect(Collectors.joining(" "))
                        + (pictures.get(i).isEmpty() ? "" : "<br/>")
                        + ranges.of(point.cells().get(i))
                        + escaped(words(point.cells().get(i), imprint))
                        + "</td>")
                .collect(Collectors.joining());
        String when = point.months().size() < YEAR ? MonthNotation.print(point.months()) : "";
        String cuts = point.cuts().stream()
                .map(cut -> cut.text() + ": " + plainName(names.get(cut.below())) + ", above: "
                        + plainName(names.get(cut.above())))
                .collect(Collectors.joining(", "));
        String how =
                Stream.of(point.method(), when, cuts).filter(s -> !s.isEmpty()).collect(Collectors.joining("; "));
        return "<tr><td>" + escaped(point.subject() + kind) + "</td>" + cells + "<td>" + escaped(how) + "</td></tr>";
    }

    /** Of what the row shows itself; what it is only mistaken for has no picture. */
    private static List<PrintedPicture> pictures(ShownCell cell, Imprint imprint) {
        return cell.states().stream()
                .filter(state -> state.share() > 0 && !state.picture().isEmpty())
                .flatMap(state -> imprint.pictures().apply(state.picture()).stream())
                .toList();
    }

    private static String words(ShownCell cell, Imprint imprint) {
        return imprint.plain() ? cell.plain() : cell.text();
    }

    private static String escaped(String text) {
        return PdfPage.escaped(text);
    }
}
