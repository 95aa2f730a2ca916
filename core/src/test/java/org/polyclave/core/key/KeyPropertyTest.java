package org.polyclave.core.key;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.key.KeyOutcome.Generated;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;
import org.polyclave.core.testkit.SpecimenOracle;
import org.polyclave.core.testkit.SyntheticMatrix;

/** Properties of generated keys on seeded random matrices; the seed is the name of a failing case. */
class KeyPropertyTest {
    private static final KeyOptions QUICK = KeyOptions.DEFAULT.withNodeBudget(50);

    /** What the walk of a single specimen does not notice. */
    private static final List<Proof.Kind> NOT_OF_THE_WAY = List.of(
            Proof.Kind.NOT_SUFFICIENT,
            Proof.Kind.CONTRARY_TENDENCY,
            Proof.Kind.NAMED_IN_VAIN,
            Proof.Kind.COULD_BE_SEPARATED);

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 40);
    }

    /** Lengths are read to nothing, one, two or three units, which differs from character to character. */
    private static Matrix readOff(Matrix matrix, long seed) {
        return SyntheticMatrix.withCharacters(
                matrix, c -> c.type().isNumeric() ? c.withUncertainty(Math.floorMod(c.organ() + seed, 4)) : c);
    }

    private static KeyResult generate(Matrix matrix, KeyOptions options) {
        KeyOutcome outcome = new KeyGenerator().generate(matrix, options, CancelSignal.NEVER);
        return ((Generated) outcome).result();
    }

    static LongStream someOrMany() {
        return LongStream.rangeClosed(1, Long.getLong("polyclave.seeds", 40));
    }

    /** Of all keys none is better by its own measure than the one that was made for it. */
    @ParameterizedTest(name = "seed {0}")
    @MethodSource("someOrMany")
    void noKeyIsBeatenAtItsOwnAim(long seed) {
        int rows = 4 + (int) (seed % 17);
        Matrix matrix = new SyntheticMatrix(rows, 12, 4, 0.2, 0.05, 0.3, 0.2, false).generate(seed);
        KeyProblem problem = new KeyProblem(matrix, true);
        TreeCost judge = new TreeCost(problem);
        Map<KeyObjective, KeyTree> trees = new EnumMap<>(KeyObjective.class);
        // With so many nodes, trees are tried that begin otherwise, too.
        Optional<Observer> readers = seed % 4 == 1 ? Optional.of(Observer.NOVICE) : Optional.empty();
        KeyOptions options = (seed % 10 == 0 ? QUICK.withNodeBudget(1_300) : QUICK).withReaders(readers);
        KeyPool pool = new KeyPool(problem, options, 10_000);
        pool.search(CancelSignal.NEVER, Progress.UNSEEN, () -> {});
        for (KeyObjective objective : KeyObjective.values()) {
            trees.put(objective, pool.best(objective).tree());
        }
        trees.forEach((objective, own) -> {
            SplitCost cost = new SplitCost(problem, objective, options);
            for (KeyTree other : trees.values()) {
                if (objective == KeyObjective.CAUTIOUS) {
                    assertThat(harm(judge, own, readers)).isLessThanOrEqualTo(harm(judge, other, readers) + 1e-10);
                } else {
                    assertThat(judge.of(own, cost)).isLessThanOrEqualTo(judge.of(other, cost) + 1e-10);
                }
            }
        });
    }

    /** What was weighed of a couplet of several leads is what is written, and each specimen finds its lead. */
    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void severalLeadsArriveToo(long seed) {
        Matrix matrix = readOff(new SyntheticMatrix(8, 5, 5, 0.25, 0.1, 0.3, 0.4, false).generate(seed), seed);
        int most = 3 + (int) (seed % 3);
        for (KeyObjective objective : List.of(KeyObjective.FEWEST, KeyObjective.CAUTIOUS)) {
            KeyResult result = generate(matrix, QUICK.withObjective(objective).withLeads(most));
            assertThat(result.key().couplets())
                    .allSatisfy(couplet -> assertThat(couplet.leads()).hasSizeBetween(2, most));
            assertThat(result.figures().couplets())
                    .isEqualTo(result.key().couplets().size());
            assertThat(result.figures().terminals())
                    .isEqualTo(result.key().couplets().stream()
                            .flatMap(couplet -> couplet.leads().stream())
                            .filter(lead -> lead.to() instanceof Key.ToRows)
                            .count());
            assertThat(result.figures().longestPath()).isEqualTo(longest(result.key(), 1));
            assertThat(result.proof().failures()).isEmpty();
            assertThat(new SpecimenOracle(matrix, result.key()).everySpecimenArrives())
                    .isTrue();
        }
    }

    private static int longest(Key key, int couplet) {
        return 1
                + key.couplets().get(couplet - 1).leads().stream()
                        .mapToInt(lead -> lead.to() instanceof Key.ToCouplet next ? longest(key, next.number()) : 0)
                        .max()
                        .orElse(0);
    }

    private static double harm(TreeCost judge, KeyTree tree, Optional<Observer> readers) {
        double trained = judge.risk(tree, Observer.TRAINED).dangerousWrong();
        double novices = judge.risk(tree, Observer.NOVICE).dangerousWrong();
        return readers.isPresent() ? novices : trained + novices;
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void everySpecimenOfEveryRowArrives(long seed) {
        Matrix matrix = readOff(new SyntheticMatrix(7, 5, 3, 0.3, 0.1, 0.2, 0.5, false).generate(seed), seed);
        for (KeyObjective objective : KeyObjective.values()) {
            KeyResult result = generate(matrix, QUICK.withObjective(objective));
            assertThat(result.proof().failures()).isEmpty();
            assertThat(new SpecimenOracle(matrix, result.key()).everySpecimenArrives())
                    .isTrue();
        }
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void proofAgreesWithEnumeratedSpecimensOnBrokenKeys(long seed) {
        Matrix matrix = readOff(new SyntheticMatrix(6, 5, 3, 0.3, 0.05, 0.2, 0.4, false).generate(seed), seed);
        Key key = generate(matrix, QUICK.withObjective(KeyObjective.CAUTIOUS)).key();
        Random random = new Random(seed);
        for (int attempt = 0; attempt < 12 && !key.couplets().isEmpty(); attempt++) {
            Key broken = breakOneStatement(key, random, matrix);
            Proof proof = new SupportPropagationProver().prove(matrix, broken);
            boolean walkable = proof.failures().stream()
                    .allMatch(f -> f.kind() == Proof.Kind.UNREACHED_COUPLET
                            || f.kind() == Proof.Kind.UNREACHED_TERMINAL
                            || f.kind() == Proof.Kind.ROW_MISSING
                            || NOT_OF_THE_WAY.contains(f.kind()));
            assertThat(new SpecimenOracle(matrix, broken).everySpecimenArrives())
                    .as("attempt %d: %s", attempt, proof.failures())
                    .isEqualTo(walkable);
        }
    }

    /** Changes the states or the limit of one deciding statement, or swaps the targets of a couplet. */
    private static Key breakOneStatement(Key key, Random random, Matrix matrix) {
        List<Key.Couplet> couplets = new ArrayList<>(key.couplets());
        int at = random.nextInt(couplets.size());
        Key.Couplet couplet = couplets.get(at);
        List<Key.Lead> leads = new ArrayList<>(couplet.leads());
        if (random.nextInt(4) == 0) {
            Key.Target first = leads.get(0).to();
            leads.set(0, new Key.Lead(leads.get(0).statements(), leads.get(1).to()));
            leads.set(1, new Key.Lead(leads.get(1).statements(), first));
        } else {
            List<Key.Statement> statements = new ArrayList<>(leads.get(0).statements());
            Key.Statement deciding = statements.get(0);
            Atoms changed = deciding.atoms() instanceof Atoms.States
                    ? new Atoms.States(1
                            + random.nextInt(
                                    matrix.character(deciding.character()).allStates()))
                    : Atoms.Interval.closed(random.nextInt(20), 20 + random.nextInt(30));
            statements.set(0, new Key.Statement(deciding.character(), changed, deciding.role()));
            leads.set(0, new Key.Lead(statements, leads.get(0).to()));
        }
        couplets.set(at, new Key.Couplet(couplet.number(), couplet.from(), leads));
        return Key.of(couplets);
    }

    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void generationIsDeterministic(long seed) {
        SyntheticMatrix kind = new SyntheticMatrix(20, 25, 4, 0.3, 0.05, 0.3, 0.2, false);
        assertThat(generate(kind.generate(seed), QUICK))
                .usingRecursiveComparison()
                .isEqualTo(generate(kind.generate(seed), QUICK));
    }
}
