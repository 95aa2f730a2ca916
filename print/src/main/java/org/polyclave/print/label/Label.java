package org.polyclave.print.label;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.polyclave.study.model.Specimen;

/**
 * What a label of a specimen says; it leaves out what is not known.
 *
 * @param qualifier of the name: "cf.", "aff." or empty
 * @param name that it has now; empty on a label of where it was found
 */
public record Label(String code, String qualifier, String name, List<String> lines) {
    public Label {
        lines = lines.stream().filter(l -> !l.isBlank()).toList();
    }

    /** Where and when it was found, and what was done to it. */
    public static Label collecting(Specimen specimen) {
        Specimen.Event event = specimen.event();
        Double uncertainty = event.uncertainty();
        List<String> state = new ArrayList<>(List.of(specimen.sex(), specimen.stage()));
        specimen.treatments().forEach(t -> state.add(joined(word(t.how()), t.date())));
        return new Label(
                specimen.code(),
                "",
                "",
                List.of(
                        event.place(),
                        joined(
                                event.coordinates(),
                                event.coordinates().isBlank() || uncertainty == null
                                        ? ""
                                        : String.format(Locale.ROOT, "±%.0f m", uncertainty)),
                        joined(event.habitat(), event.host()),
                        joined(event.date(), event.collector().isBlank() ? "" : "leg. " + event.collector()),
                        joined(state.toArray(String[]::new))));
    }

    /**
     * Its names: the present one large, the earlier ones kept.
     *
     * @param nameOf name of a row by its id
     */
    public static Label determination(Specimen specimen, UnaryOperator<String> nameOf) {
        List<String> lines = new ArrayList<>();
        List<Specimen.Determination> all = specimen.determinations();
        for (int i = all.size() - 1; i >= 0; i--) {
            lines.add(
                    i == all.size() - 1
                            ? by(all.get(i))
                            : "(" + named(all.get(i), nameOf) + "; " + by(all.get(i)) + ")");
        }
        return new Label(
                specimen.code(),
                specimen.present().map(Specimen.Determination::qualifier).orElse(""),
                specimen.present().map(d -> nameOf.apply(d.row())).orElse(""),
                lines);
    }

    private static String named(Specimen.Determination determination, UnaryOperator<String> nameOf) {
        return (determination.qualifier() + " " + nameOf.apply(determination.row())).strip();
    }

    private static String by(Specimen.Determination determination) {
        String how = determination.kind() == Specimen.Kind.CONFIRMED ? "conf. " : "det. ";
        return joined((how + determination.by()).strip(), determination.date());
    }

    private static String word(Specimen.Treated how) {
        return how == Specimen.Treated.FLUID ? "kept in fluid" : how.name().toLowerCase(Locale.ROOT);
    }

    private static String joined(String... parts) {
        return Stream.of(parts).filter(p -> !p.isBlank()).collect(Collectors.joining(", "));
    }
}
