package org.polyclave.wording.comparison;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.polyclave.core.diagnosis.Diagnosis;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.run.Completion;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.notation.MonthNotation;

/**
 * The cheapest way to recognise a row under viewing conditions.
 *
 * @param dangerous whether it is: then two independent groups are wanted against every rival
 * @param dangers dangerous rows of other taxa, against which two independent groups are wanted
 * @param sentence in words
 * @param points what it takes, in the order of characters
 * @param cost minutes and five times the misreading of each
 * @param bound no way costs less
 * @param notTold rows that it is not distinguished from, whatever is looked at now
 * @param thin rows that fewer independent groups tell than are wanted
 */
public record Recognition(
        String row,
        boolean dangerous,
        List<String> dangers,
        String sentence,
        String plainSentence,
        List<SignView> points,
        double cost,
        double bound,
        Completion completion,
        List<String> notTold,
        List<String> thin) {

    public record SignView(
            String character,
            String subject,
            String text,
            String plain,
            String clause,
            String plainClause,
            String method) {}

    static Recognition of(
            CompiledStudy compiled, ViewingConditions conditions, Diagnosis found, List<SignView> points) {
        List<String> notTold = names(compiled, found, 0);
        List<String> thin = new ArrayList<>(names(compiled, found, 1));
        String name = compiled.rows().get(found.row()).name();
        String plainName = compiled.rows().get(found.row()).plain();
        return new Recognition(
                compiled.rows().get(found.row()).id(),
                compiled.matrix().row(found.row()).hazard().isDangerous(),
                dangers(compiled, found.row()),
                sentence(name, when(conditions), points, notTold, false),
                sentence(plainName.isEmpty() ? name : plainName, when(conditions), points, notTold, true),
                points,
                found.cost(),
                found.bound(),
                found.completion(),
                notTold,
                thin);
    }

    private static List<String> dangers(CompiledStudy compiled, int row) {
        Matrix matrix = compiled.matrix();
        return IntStream.range(0, matrix.rowCount())
                .filter(r -> matrix.row(r).hazard().isDangerous()
                        && matrix.row(r).name() != matrix.row(row).name())
                .mapToObj(r -> compiled.rows().get(r).name())
                .toList();
    }

    private static List<String> names(CompiledStudy compiled, Diagnosis found, int groups) {
        return found.shortfalls().stream()
                .filter(s -> s.groups() == groups)
                .map(s -> compiled.rows().get(s.rival()).name())
                .toList();
    }

    /** " in Dec–Feb with the naked eye". */
    private static String when(ViewingConditions conditions) {
        String months = conditions.context().months().isEmpty()
                ? ""
                : " in "
                        + MonthNotation.print(
                                conditions.context().months().stream().sorted().toList());
        List<String> methods = conditions.context().methods().stream()
                .filter(m -> !m.equals("eye") && !m.equals("naked eye"))
                .sorted()
                .toList();
        String with = conditions.context().methods().isEmpty()
                ? ""
                : methods.isEmpty() ? " with the naked eye" : " by eye and " + String.join(", ", methods);
        String on = conditions.context().organs().isEmpty()
                ? ""
                : " on "
                        + String.join(
                                ", ",
                                conditions.context().organs().stream().sorted().toList());
        return months + with + on;
    }

    private static String sentence(
            String name, String when, List<SignView> points, List<String> notTold, boolean plain) {
        String signs =
                points.stream().map(p -> plain ? p.plainClause() : p.clause()).collect(Collectors.joining("; "));
        String others = String.join(", ", notTold);
        if (points.isEmpty()) {
            return "Nothing distinguishes " + name + " from " + (others.isEmpty() ? "others" : others) + when + ".";
        }
        String open = others.isEmpty() ? "" : " They do not distinguish it from " + others + ".";
        return "Recognise " + name + when + " by all of these together: " + signs + "." + open;
    }
}
