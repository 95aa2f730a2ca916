package org.polyclave.bench;

import java.util.List;
import java.util.Locale;
import java.util.function.BiFunction;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.testkit.NamingSimulation;
import org.polyclave.core.testkit.NamingSimulation.Outcome;
import org.polyclave.core.testkit.ReaderHabits;
import org.polyclave.core.testkit.SyntheticMatrix;
import org.polyclave.demo.DemoStudies;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;

/**
 * How often the names that the any-order key shows or settles are right: simulated sessions over the demo's studies and random
 * ones. It prints a table, not times, and so is not a JMH benchmark.
 */
public final class NamingTable {
    private static final double MISLEADING = 0.03;
    private static final double TOGETHER = 0.6;
    private static final int RANDOM_STUDIES = 20;
    private static final int PARTS = 5;

    private final int sessions;

    private NamingTable(int sessions) {
        this.sessions = sessions;
    }

    /** The first argument is the number of sessions a figure; 4,000 if there is none. */
    public static void main(String[] arguments) {
        new NamingTable(arguments.length > 0 ? Integer.parseInt(arguments[0]) : 4000).print();
    }

    /** @param studies matrices over which the sessions are spread */
    private record Subject(String name, List<Matrix> studies) {}

    private void print() {
        System.out.println(
                "| studies | reader | misreading | likely (95 or more in 100), right | settled | settled, wrong | answers "
                        + "| said to be outside | not in the key: settled | said to be outside |");
        System.out.println("|---|---|---|---|---|---|---|---|---|---|");
        List<Subject> subjects = Stream.concat(
                        DemoStudies.all().stream().map(NamingTable::subject), Stream.of(plain(), mixed()))
                .toList();
        for (Subject subject : subjects) {
            for (Observer observer : List.of(Observer.TRAINED, Observer.NOVICE)) {
                for (double rates : new double[] {1, 2}) {
                    for (double shared : new double[] {0, TOGETHER}) {
                        line(subject, new ReaderHabits(observer, rates, MISLEADING, 0).withShared(shared));
                    }
                }
            }
        }
    }

    private static Subject subject(Study study) {
        return new Subject(
                study.title(), List.of(StudyCompiler.compile(study).scoredOnly().matrix()));
    }

    private static Subject plain() {
        return new Subject(
                "20 random, 20 × 25, one state a cell", random(new SyntheticMatrix(20, 25, 4, 0, 0, 0, 0, true)));
    }

    private static Subject mixed() {
        return new Subject(
                "20 random, 25 × 30, a fifth of the cells vary, a tenth unknown, a quarter numbers",
                random(new SyntheticMatrix(25, 30, 4, 0.2, 0.1, 0.25, 0.1, false)));
    }

    private static List<Matrix> random(SyntheticMatrix family) {
        return IntStream.rangeClosed(1, RANDOM_STUDIES)
                .mapToObj(seed -> SyntheticMatrix.withCharacters(family.generate(seed), NamingTable::onAPart))
                .toList();
    }

    private static MatrixCharacter onAPart(MatrixCharacter character) {
        return character.on(character.organ() % PARTS, List.of());
    }

    private void line(Subject subject, ReaderHabits habits) {
        Outcome inside =
                all(subject, (m, seed) -> m.run(sessions / subject.studies().size(), seed), habits);
        Outcome outside = all(
                subject,
                (m, seed) -> m.runOutside(sessions / 2 / subject.studies().size(), seed),
                habits);
        System.out.println(
                "| %s | %s | × %.0f, %s | %.1f %% of %d | %.0f %% | %.2f %% | %.1f | %.1f %% | %.1f %% | %.0f %% |"
                        .formatted(
                                subject.name(),
                                habits.observer().name().toLowerCase(Locale.ROOT),
                                habits.rates(),
                                habits.shared() > 0 ? "together" : "apart",
                                100.0 * inside.likelyRight() / Math.max(1, inside.likely()),
                                inside.likely(),
                                100.0 * inside.settled() / inside.sessions(),
                                100.0 * (inside.settled() - inside.settledRight()) / Math.max(1, inside.settled()),
                                (double) inside.answers() / inside.sessions(),
                                100.0 * inside.outside() / inside.sessions(),
                                100.0 * outside.settled() / outside.sessions(),
                                100.0 * outside.outside() / outside.sessions()));
    }

    private static Outcome all(Subject subject, BiFunction<NamingSimulation, Long, Outcome> run, ReaderHabits habits) {
        return IntStream.range(0, subject.studies().size())
                .parallel()
                .mapToObj(k -> run.apply(new NamingSimulation(subject.studies().get(k), habits), k + 1L))
                .reduce(Outcome.NONE, Outcome::plus);
    }
}
