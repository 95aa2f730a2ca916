package org.polyclave.wording.key;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.study.compile.Outside;
import org.polyclave.study.model.Study;

/** What is said around a key: cautions, dangers that its path has not ruled out, figures. */
public final class KeyNotes {
    public static final String NOT_RULED_OUT = "Not ruled out:";

    private KeyNotes() {}

    /** "Not ruled out: Bane (life-threatening). Look also at: pod colour." */
    public static String notRuledOut(KeyView.OpenDangerView danger) {
        return NOT_RULED_OUT + ' ' + danger.name().label() + ' ' + whatElse(danger);
    }

    /** What follows the name of a danger that is not ruled out. */
    public static String whatElse(KeyView.OpenDangerView danger) {
        String severity = danger.name().hazard() == Hazard.LIFE_THREATENING ? "life-threatening" : "serious";
        return "(" + severity + "). "
                + (danger.signs().isEmpty()
                        ? "This matrix has no checked sign that rules it out."
                        : "Look also at: " + String.join("; ", danger.signs()) + ".");
    }

    /** What every reader of a key is told. */
    public static List<String> cautions(Study study) {
        List<String> cautions = new ArrayList<>(study.scope().cautions());
        if (study.scope().gatheredForFood()) {
            cautions.add(
                    "An identification here, from a key or picture, is not enough to eat anything; have every single"
                            + " collected specimen confirmed by a qualified person.");
        }
        cautions.add(
                "No result is permission to eat, touch, keep or handle anything. Local rules and qualified people decide.");
        return cautions;
    }

    /** The cautions of a key that stands alone: with the dangers that it does not name, and what else it leaves out. */
    public static List<String> cautionsOnPaper(KeyView view, Study study) {
        List<String> cautions = new ArrayList<>();
        Stream<String> unknown = Outside.of(study).stream()
                .filter(o -> o.hazard().isDangerous())
                .map(o -> o.name() + " (" + HazardWording.severity(o.hazard()) + ")");
        Stream<String> unwanted = view.leftOut().stream()
                .filter(n -> n.hazard().isDangerous())
                .map(n -> n.called() + " (" + HazardWording.severity(n.hazard()) + ")");
        String outside = Stream.concat(unknown, unwanted).distinct().collect(Collectors.joining("; "));
        if (!outside.isEmpty()) {
            cautions.add("Dangerous, and not in this key: " + outside + ".");
        }
        if (!view.leftOut().isEmpty()) {
            cautions.add("This key does not lead to: "
                    + view.leftOut().stream().map(KeyView.NameView::called).collect(Collectors.joining("; ")) + ".");
        }
        cautions.addAll(cautions(study));
        return cautions;
    }

    /** How long a key is, and whether it is proven. */
    public static String figures(KeyView view) {
        KeyView.FiguresView f = view.figures();
        return String.format(
                Locale.ROOT,
                "%d rows, %d couplets; %.2f steps expected (bound %.2f), longest path %d; %s.",
                f.rows(),
                f.couplets(),
                f.expectedSteps(),
                f.leastSteps() == null ? f.entropyBound() : f.leastSteps(),
                f.longestPath(),
                f.proven() ? "proven against the matrix" : "NOT PROVEN");
    }
}
