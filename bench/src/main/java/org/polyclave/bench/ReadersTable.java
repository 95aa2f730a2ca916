package org.polyclave.bench;

import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import org.polyclave.core.key.Key;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.testkit.CoupletReaders;
import org.polyclave.core.testkit.NamingSimulation;
import org.polyclave.core.testkit.NamingSimulation.Outcome;
import org.polyclave.core.testkit.ReaderHabits;
import org.polyclave.demo.DemoStudies;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;

/**
 * What becomes of simulated readers in both keys of each demo study, with the misreading that its author gave. It prints a
 * table, not times, and so is not a JMH benchmark.
 */
public final class ReadersTable {
    private static final int SESSIONS_AT_ONCE = 500;

    private final int readers;

    private ReadersTable(int readers) {
        this.readers = readers;
    }

    /** The first argument is the number of readers of a line; 20,000 if there is none. */
    public static void main(String[] arguments) {
        new ReadersTable(arguments.length > 0 ? Integer.parseInt(arguments[0]) : 20_000).print();
    }

    private void print() {
        System.out.println(
                "| study | reader | key | right | wrong | dangerous as harmless | no name | steps | minutes |");
        System.out.println("|---|---|---|---|---|---|---|---|---|");
        for (Study study : DemoStudies.all()) {
            Matrix matrix = StudyCompiler.compile(study).scoredOnly().matrix();
            KeyOptions options = KeyOptions.DEFAULT.withObjective(KeyObjective.CAUTIOUS);
            KeyOutcome made = new KeyGenerator().generate(matrix, options, CancelSignal.NEVER);
            Key key = ((KeyOutcome.Generated) made).result().key();
            for (Observer observer : List.of(Observer.TRAINED, Observer.NOVICE)) {
                couplets(study, matrix, key, observer);
                anyOrder(study, matrix, observer);
            }
        }
    }

    private void couplets(Study study, Matrix matrix, Key key, Observer observer) {
        CoupletReaders.Ends ends = new CoupletReaders(matrix, key, observer, 1).run(readers);
        line(
                study,
                observer,
                "couplets",
                readers,
                ends.right(),
                ends.wrong(),
                ends.dangerous(),
                ends.stuck(),
                ends.couplets(),
                ends.minutes());
    }

    private void anyOrder(Study study, Matrix matrix, Observer observer) {
        NamingSimulation simulation = new NamingSimulation(matrix, new ReaderHabits(observer, 1, 0, 0));
        Outcome all = IntStream.range(0, Math.max(1, readers / SESSIONS_AT_ONCE))
                .parallel()
                .mapToObj(k -> simulation.run(SESSIONS_AT_ONCE, k + 1L))
                .reduce(Outcome.NONE, Outcome::plus);
        line(
                study,
                observer,
                "any order, settled",
                all.sessions(),
                all.settledRight(),
                all.settled() - all.settledRight(),
                all.dangerous(),
                all.sessions() - all.settled(),
                all.answers(),
                all.minutes());
    }

    private static void line(
            Study study,
            Observer observer,
            String key,
            int readers,
            int right,
            int wrong,
            int dangerous,
            int none,
            long steps,
            double minutes) {
        System.out.println("| %s | %s | %s | %.1f %% | %.2f %% | %.2f %% | %.1f %% | %.1f | %.1f |"
                .formatted(
                        study.title(),
                        observer.name().toLowerCase(Locale.ROOT),
                        key,
                        100.0 * right / readers,
                        100.0 * wrong / readers,
                        100.0 * dangerous / readers,
                        100.0 * none / readers,
                        (double) steps / readers,
                        minutes / readers));
    }
}
