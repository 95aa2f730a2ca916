package org.polyclave.bench;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.polyclave.core.gate.SafetyGate;
import org.polyclave.core.margin.SafetyMargin;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.testkit.ReaderHabits;
import org.polyclave.core.testkit.SafetyFamilies;
import org.polyclave.core.testkit.SafetyFamilies.Family;
import org.polyclave.core.testkit.SafetySimulation;
import org.polyclave.core.testkit.SafetySimulation.Outcome;
import org.polyclave.demo.DemoStudies;
import org.polyclave.study.compile.StudyCompiler;

/**
 * How often readers rule out a danger that they have in the hand, and how often one that they do not: simulated sessions over
 * made-up studies and the demo's. It prints a table, not times, and so is not a JMH benchmark.
 */
public final class MarginTable {
    private static final int WHOLE_YEAR = 0xFFF;
    private static final double MISLEADING = 0.03;
    private static final double REPEATED = 0.3;
    private static final double UNSEEN = 0.2;
    private static final int STUDIES_OF_A_FAMILY = 60;

    private final int sessions;

    private MarginTable(int sessions) {
        this.sessions = sessions;
    }

    /** The first argument is the number of sessions a figure; 6,000 if there is none. */
    public static void main(String[] arguments) {
        MarginTable table = new MarginTable(arguments.length > 0 ? Integer.parseInt(arguments[0]) : 6000);
        table.families();
        table.studies();
    }

    private void families() {
        print("| study | reader | threshold | present, ruled out at twice the rates | with repeated looks "
                + "| absent, settled on at twice the rates | absent, ruled out at the stated rates |");
        print("|---|---|---|---|---|---|---|");
        List<Family> serious = Stream.concat(
                        SafetyFamilies.chosen(Hazard.SERIOUS).stream(), SafetyFamilies.fresh().stream())
                .toList();
        serious.forEach(f -> families(f, Observer.NOVICE, true));
        SafetyFamilies.chosen(Hazard.LIFE_THREATENING).forEach(f -> families(f, Observer.NOVICE, false));
        serious.forEach(f -> families(f, Observer.TRAINED, false));
    }

    /** A line of the table; without what is said of novices only where it is not whole. */
    private void families(Family family, Observer observer, boolean whole) {
        Outcome present = of(family, observer, 2, 0, 0);
        String repeated = "";
        String settled = "";
        if (whole) {
            Outcome again = of(family, observer, 2, REPEATED, 0);
            repeated = limited(again.ruledOut(), again.sessions(), again.upperLimit());
            Outcome absent = of(family, observer, 2, 0, 1);
            settled = limited(absent.onDanger(), absent.sessions(), absent.upperLimitOnDanger());
        }
        print("| %s | %s | %.0f | %s | %s | %s | %.0f %% |"
                .formatted(
                        family.name(),
                        observer.name().toLowerCase(Locale.ROOT),
                        SafetyMargin.needed(family.hazard()),
                        limited(present.ruledOut(), present.sessions(), present.upperLimit()),
                        repeated,
                        settled,
                        100 * of(family, observer, 1, 0, 1).share()));
    }

    /** Sessions with specimens of a row over many studies of a family; row 0 is the danger. */
    private Outcome of(Family family, Observer observer, double rates, double repeated, int row) {
        return IntStream.range(0, STUDIES_OF_A_FAMILY)
                .parallel()
                .mapToObj(seed -> new SafetySimulation(
                                family.matrix(seed),
                                new ReaderHabits(observer, rates, MISLEADING, repeated).withUnseen(unseen(family)))
                        .run(row, 0, sessions / STUDIES_OF_A_FAMILY, seed))
                .reduce(new Outcome(0, 0, 0), Outcome::plus);
    }

    /** In the awkward family a reader has not every part in the hand, and not every month. */
    private static double unseen(Family family) {
        return "awkward".equals(family.name()) ? UNSEEN : 0;
    }

    private void studies() {
        print("");
        print("| demo study | reader | present, ruled out at twice the rates | pairs without a word of the gate "
                + "| absent, ruled out at the stated rates: mean | least |");
        print("|---|---|---|---|---|---|");
        DemoStudies.all().forEach(study -> {
            Matrix matrix = StudyCompiler.compile(study).scoredOnly().matrix();
            for (Observer observer : List.of(Observer.NOVICE, Observer.TRAINED)) {
                print("| %s | %s | %s |"
                        .formatted(study.title(), observer.name().toLowerCase(Locale.ROOT), figures(matrix, observer)));
            }
        });
    }

    private String figures(Matrix matrix, Observer observer) {
        List<Integer> dangers = rows(matrix, true);
        List<List<Integer>> clean = clean(matrix);
        Outcome present = dangers.parallelStream()
                .map(h -> new SafetySimulation(matrix, new ReaderHabits(observer, 2, MISLEADING, 0))
                        .run(h, h, sessions / dangers.size(), h))
                .reduce(new Outcome(0, 0, 0), Outcome::plus);
        double[] absent = clean.parallelStream()
                .mapToDouble(p -> new SafetySimulation(matrix, new ReaderHabits(observer, 1, MISLEADING, 0))
                        .run(p.get(1), p.get(0), Math.max(50, sessions / clean.size()), 7)
                        .share())
                .toArray();
        return "%s | %d | %.1f %% | %.0f %%"
                .formatted(
                        limited(present.ruledOut(), present.sessions(), present.upperLimit()),
                        clean.size(),
                        100
                                * IntStream.range(0, absent.length)
                                        .mapToDouble(i -> absent[i])
                                        .average()
                                        .orElse(0),
                        100
                                * IntStream.range(0, absent.length)
                                        .mapToDouble(i -> absent[i])
                                        .min()
                                        .orElse(0));
    }

    /** Danger and taxon without known hazard, where the gate has nothing to say. */
    private static List<List<Integer>> clean(Matrix matrix) {
        Set<List<Integer>> unmet = new HashSet<>();
        SafetyGate.unmet(matrix, WHOLE_YEAR).forEach(u -> unmet.add(List.of(u.danger(), u.other())));
        List<List<Integer>> clean = new ArrayList<>();
        for (int h : rows(matrix, true)) {
            for (int j : rows(matrix, false)) {
                if (!unmet.contains(List.of(h, j))) {
                    clean.add(List.of(h, j));
                }
            }
        }
        return clean;
    }

    private static List<Integer> rows(Matrix matrix, boolean dangerous) {
        return IntStream.range(0, matrix.rowCount())
                .filter(i -> matrix.row(i).hazard().isDangerous() == dangerous)
                .boxed()
                .toList();
    }

    private static String limited(int events, int sessions, double upper) {
        return "%.2f %% (≤ %.2f)".formatted(100.0 * events / sessions, 100 * upper);
    }

    private static void print(String line) {
        System.out.println(line);
    }
}
