package org.polyclave.print.card;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.polyclave.core.separation.Verdict;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.wording.comparison.ContrastCard;
import org.polyclave.wording.comparison.ContrastCard.PairView;
import org.polyclave.wording.comparison.ContrastCard.PointView;
import org.polyclave.wording.comparison.ContrastCard.ShownCell;
import org.polyclave.wording.key.KeyView.NameView;
import org.polyclave.wording.lead.English;

/**
 * What the templates of a card print.
 *
 * @param most of the points that it shows
 * @param mostPairs of those that are not separated firmly
 * @param type size of the type in points
 */
public record CardPage(ContrastCard card, ContrastPrint.Imprint made, int most, int mostPairs, double type) {
    private static final int YEAR = 12;
    /** The longer side of a picture, in the height of the type. */
    private static final double PICTURE = 5.5;

    private static final String CAUTION =
            "An identification by this card is not permission to eat, touch or collect anything. Local rules and qualified people decide.";

    /** One point: what differs, how each row shows it, and how and when it is seen. */
    public record Line(String subject, List<Box> boxes, String how) {}

    /** @param pictures drawings and photographs as they stand in HTML */
    public record Box(String pictures, String words) {}

    public List<NameView> names() {
        return card.names();
    }

    public String caution() {
        return CAUTION;
    }

    public String imprint() {
        return made.study() + ", " + made.date() + ".";
    }

    /** What separates them, in a sentence; empty where nothing does: then that is said of each pair. */
    public String answer() {
        return made.plain() ? card.answer().plain() : card.answer().technical();
    }

    public List<Line> lines() {
        return card.points().stream().limit(most).map(this::line).toList();
    }

    public int leftOut() {
        return Math.max(0, card.points().size() - most);
    }

    /** What is the same in all of them, as a list in words. */
    public String shared() {
        return card.shared().stream()
                .limit(most)
                .map(p -> English.lower(p.subject()))
                .collect(Collectors.joining(", "));
    }

    public List<PairView> unsettled() {
        return card.pairs().stream()
                .filter(p -> p.verdict() != Verdict.FIRM)
                .limit(mostPairs)
                .toList();
    }

    private Line line(PointView point) {
        String kind = switch (point.kind()) {
            case SEPARATES, SHARED -> "";
            case SO_FAR -> " (so far, of few individuals)";
            case CONFIRMS -> " (only confirms)";
            case TENDENCY -> " (usually)";
        };
        List<List<PrintedPicture>> pictures =
                point.cells().stream().map(this::pictures).toList();
        // One scale for all pictures of a character, so that large beside small looks so.
        double scale = PICTURE
                / pictures.stream()
                        .flatMap(List::stream)
                        .mapToInt(p -> Math.max(p.width(), p.height()))
                        .max()
                        .orElse(1);
        RangeSketch ranges = new RangeSketch(point);
        List<Box> boxes = IntStream.range(0, point.cells().size())
                .mapToObj(i -> new Box(
                        pictures.get(i).stream().map(p -> p.html(scale)).collect(Collectors.joining(" "))
                                + (pictures.get(i).isEmpty() ? "" : "<br/>")
                                + ranges.of(point.cells().get(i)),
                        words(point.cells().get(i))))
                .toList();
        return new Line(point.subject() + kind, boxes, how(point));
    }

    private String how(PointView point) {
        String when = point.months().size() < YEAR ? MonthNotation.print(point.months()) : "";
        String cuts = point.cuts().stream()
                .map(cut -> cut.text() + ": " + plainName(names().get(cut.below())) + ", above: "
                        + plainName(names().get(cut.above())))
                .collect(Collectors.joining(", "));
        return Stream.of(point.method(), when, cuts).filter(s -> !s.isEmpty()).collect(Collectors.joining("; "));
    }

    private static String plainName(NameView name) {
        return name.label() + (name.stage().isEmpty() ? "" : ", " + name.stage());
    }

    /** Of what the row shows itself; what it is only mistaken for has no picture. */
    private List<PrintedPicture> pictures(ShownCell cell) {
        return cell.states().stream()
                .filter(state -> state.share() > 0 && !state.picture().isEmpty())
                .flatMap(state -> made.pictures().apply(state.picture()).stream())
                .toList();
    }

    private String words(ShownCell cell) {
        return made.plain() ? cell.plain() : cell.text();
    }
}
