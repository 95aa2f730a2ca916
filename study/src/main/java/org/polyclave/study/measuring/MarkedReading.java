package org.polyclave.study.measuring;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.measuring.Outline;
import org.polyclave.core.measuring.PictureScale;
import org.polyclave.core.measuring.Ratio;
import org.polyclave.study.model.Mark;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Scale;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.study.notation.TypedNumber;

/**
 * Takes a reading from a mark on a picture. Lines and paths are lengths; an outline is, as a length, the diameter of the circle
 * of its area; two lines, paths or outlines are a ratio or a percentage, for which no scale is needed. Of a set of lines or
 * outlines, what the greatest of them measures is the reading.
 */
public final class MarkedReading {
    private static final double HUNDRED = 100;
    /** More than anyone marks of one set. */
    private static final int LARGEST_SET = 100;

    private MarkedReading() {}

    public static ReadingOutcome of(Study study, Mark mark, StudyCharacter character) {
        Optional<Picture> picture = study.pictures().stream()
                .filter(p -> p.id().equals(mark.picture()))
                .findFirst();
        if (picture.isEmpty()) {
            return new ReadingOutcome.Refused("The picture of this mark is not in the study. Load it again.");
        }
        if (mark.parts().stream()
                .flatMap(List::stream)
                .anyMatch(p -> !(p.x() >= 0
                        && p.x() <= picture.get().width()
                        && p.y() >= 0
                        && p.y() <= picture.get().height()))) {
            return new ReadingOutcome.Refused("A point lies outside the picture. Move it back.");
        }
        try {
            return taken(study, picture.get(), mark, character);
        } catch (IllegalArgumentException degenerate) {
            return new ReadingOutcome.Refused(
                    "The points of this mark lie in one place or on one line, or are too few. Set them apart.");
        }
    }

    private static ReadingOutcome taken(Study study, Picture picture, Mark mark, StudyCharacter character) {
        boolean two = mark.parts().size() == 2;
        if (mark.shape() == Mark.Shape.COUNT) {
            return character.type() == CharacterType.COUNT && mark.parts().size() == 1
                    ? value(mark.parts().get(0).size(), 0, character)
                    : unfit(character);
        }
        int most = mark.shape().isSet() ? LARGEST_SET : 2;
        if (mark.parts().size() > most || mark.parts().isEmpty()) {
            return unfit(character);
        }
        Outline first = outline(mark, greatest(mark));
        double tilt = picture.scale() == null ? 0 : picture.scale().tilt();
        return switch (character.type()) {
            case ANGLE ->
                mark.shape() == Mark.Shape.ANGLE && !two
                        ? value(first.size(), first.uncertainty(), character)
                        : unfit(character);
            case RATIO, PERCENT -> {
                if (!two || mark.shape().isSet() || mark.shape() == Mark.Shape.ANGLE) {
                    yield unfit(character);
                }
                Ratio ratio = PictureScale.ratio(first, outline(mark, 1), tilt);
                double times = character.type() == CharacterType.PERCENT ? HUNDRED : 1;
                yield value(ratio.value() * times, ratio.uncertainty() * times, character);
            }
            case LENGTH ->
                (two && !mark.shape().isSet()) || mark.shape() == Mark.Shape.ANGLE
                        ? unfit(character)
                        : length(
                                study, picture, isArea(mark.shape()) ? first.diameterOfArea() : first, tilt, character);
            default -> unfit(character);
        };
    }

    private static ReadingOutcome length(
            Study study, Picture picture, Outline marked, double tilt, StudyCharacter character) {
        ScaleOf scale = scaleOf(study, picture);
        if (scale.scale == null) {
            return new ReadingOutcome.Refused(scale.missing);
        }
        PictureScale.Length length = scale.scale.length(marked, tilt);
        return value(length.millimetres(), length.uncertainty(), character);
    }

    private static boolean isArea(Mark.Shape shape) {
        return shape == Mark.Shape.OUTLINE || shape == Mark.Shape.LARGEST;
    }

    /** Of a set, the part that measures most; else the first. */
    private static int greatest(Mark mark) {
        int greatest = 0;
        for (int part = 1; part < mark.parts().size() && mark.shape().isSet(); part++) {
            greatest = outline(mark, part).size() > outline(mark, greatest).size() ? part : greatest;
        }
        return greatest;
    }

    private static Outline outline(Mark mark, int part) {
        double[] x = mark.parts().get(part).stream().mapToDouble(Mark.Point::x).toArray();
        double[] y = mark.parts().get(part).stream().mapToDouble(Mark.Point::y).toArray();
        return switch (mark.shape()) {
            case ANGLE -> Outline.angle(x, y);
            case OUTLINE, LARGEST -> Outline.area(x, y);
            default -> Outline.length(x, y);
        };
    }

    private static ReadingOutcome unfit(StudyCharacter character) {
        String needed = switch (character.type()) {
            case LENGTH -> "a line, a path, an outline, or a set of lines or outlines";
            case ANGLE -> "an angle";
            case COUNT -> "counting marks";
            case RATIO, PERCENT -> "two lines, or two outlines";
            default -> "no mark: type what it shows";
        };
        return new ReadingOutcome.Refused("'" + character.label() + "' needs " + needed
                + ". Choose another way of marking, or another character.");
    }

    private static ReadingOutcome value(double value, double uncertainty, StudyCharacter character) {
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        String typed = NotationPrinter.number(rounded(value / factor, uncertainty / factor));
        return new ReadingOutcome.Value(
                character.unit().isEmpty() ? typed : typed + " " + character.unit(),
                Units.scaled(value, 1),
                List.of(),
                Units.scaled(uncertainty, 1));
    }

    /** A value to the place that its uncertainty reaches. */
    public static double rounded(double value, double uncertainty) {
        if (!(uncertainty > 0)) {
            return value;
        }
        int places = -(int) Math.floor(Math.log10(uncertainty));
        return BigDecimal.valueOf(value)
                .setScale(places, RoundingMode.HALF_EVEN)
                .doubleValue();
    }

    /**
     * The scale of a picture.
     *
     * @param scale null if it has none
     * @param missing why it has none, with the remedy
     */
    public record ScaleOf(@Nullable PictureScale scale, String missing) {}

    /** Follows a picture's scale to the bar that it rests on. */
    public static ScaleOf scaleOf(Study study, Picture picture) {
        Scale scale = picture.scale();
        if (scale == null) {
            return none("This picture has no scale yet. Set one on its scale bar before measuring lengths.");
        }
        if (scale.like().isEmpty()) {
            return ofBar(scale);
        }
        Optional<Picture> other = study.pictures().stream()
                .filter(p -> p.id().equals(scale.like()))
                .findFirst();
        Scale bar = other.map(Picture::scale).orElse(null);
        if (other.isEmpty() || bar == null || !bar.like().isEmpty()) {
            return none("The picture whose scale this one shares has no bar of its own. Choose another.");
        }
        return other.get().width() == picture.width() && other.get().height() == picture.height()
                ? ofBar(bar)
                : none(
                        "The picture whose scale this one shares has another size in pixels, so its pixels are of another"
                                + " length. Take both with one camera and uncropped.");
    }

    private static ScaleOf ofBar(Scale scale) {
        Optional<TypedNumber> length = TypedNumber.parse(scale.length());
        Optional<Double> factor = length.flatMap(l -> Units.factor(CharacterType.LENGTH, l.unit()));
        if (length.isEmpty() || factor.isEmpty() || length.get().unit().isEmpty()) {
            return none(
                    "A scale bar has a length with its unit, such as '1 mm' or '50 um', not '" + scale.length() + "'.");
        }
        Mark.Point from = scale.from();
        Mark.Point to = scale.to();
        if (from == null || to == null) {
            return none("A scale bar has two ends. Set both.");
        }
        try {
            double pixels = Math.hypot(to.x() - from.x(), to.y() - from.y());
            return new ScaleOf(PictureScale.ofBar(pixels, length.get().number() * factor.get()), "");
        } catch (IllegalArgumentException degenerate) {
            return none("The scale bar has no length: its ends lie in one place, or it says '" + scale.length()
                    + "'. Set its ends, and what it says.");
        }
    }

    private static ScaleOf none(String why) {
        return new ScaleOf(null, why);
    }

    /** Readings of a study as its marks come to now; what cannot be read any more is left as it was. */
    public static Study reread(Study study, String picture) {
        List<Reading> readings = new ArrayList<>();
        for (Reading reading : study.readings()) {
            readings.add(
                    reading.mark() != null && dependsOn(study, reading.mark().picture(), picture)
                            ? reread(study, reading, reading.mark())
                            : reading);
        }
        return study.withReadings(readings);
    }

    private static Reading reread(Study study, Reading reading, Mark mark) {
        Optional<ReadingOutcome> taken = study.character(reading.character()).map(c -> of(study, mark, c));
        return taken.isPresent() && taken.get() instanceof ReadingOutcome.Value now
                ? reading.read(now.typed(), now.value(), now.states(), now.uncertainty())
                : reading;
    }

    private static boolean dependsOn(Study study, String marked, String picture) {
        return marked.equals(picture)
                || study.pictures().stream()
                        .anyMatch(p -> p.id().equals(marked)
                                && p.scale() != null
                                && p.scale().like().equals(picture));
    }
}
