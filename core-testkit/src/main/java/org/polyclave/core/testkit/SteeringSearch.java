package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/**
 * Looks for answers that settle a name without known hazard while a dangerous row has not been contradicted by two usable
 * signs on two separate parts. What counts as contradicted is written down here from its definition, and shares nothing with
 * the rules but the matrix.
 */
public final class SteeringSearch {
    private static final int MOST_LOOKS = 4;
    private static final int LONGEST = 12;

    private final Matrix matrix;
    private final AnyOrderIdentifier identifier;
    private final List<Integer> dangers;
    /** Every single answer that somebody could give. */
    private final List<Answer> single = new ArrayList<>();

    private final AtomicInteger tried = new AtomicInteger();
    private final AtomicInteger settled = new AtomicInteger();

    public SteeringSearch(Matrix matrix) {
        this.matrix = matrix;
        identifier = new AnyOrderIdentifier(matrix);
        dangers = IntStream.range(0, matrix.rowCount())
                .filter(r -> matrix.row(r).hazard().isDangerous())
                .boxed()
                .toList();
        for (int c = 0; c < matrix.characterCount(); c++) {
            for (Observation seen : observations(c)) {
                single.add(answer(c, seen, 1));
                single.add(answer(c, seen, MOST_LOOKS));
            }
        }
    }

    /** Answers that steer to a harmless name although a danger is near. */
    public record Trap(List<Answer> answers, int leader, int danger) {}

    /** How many sets of answers were tried. */
    public int tried() {
        return tried.get();
    }

    /** How many of them settled a name without known hazard. */
    public int settled() {
        return settled.get();
    }

    private static Answer answer(int c, Observation seen, int looks) {
        Look again = new Look(seen, Certainty.SURE);
        return new Answer(
                c,
                seen,
                Certainty.SURE,
                false,
                Stream.generate(() -> again).limit(looks - 1L).toList());
    }

    private List<Observation> observations(int c) {
        MatrixCharacter character = matrix.character(c);
        if (!character.type().isNumeric()) {
            return IntStream.range(0, character.stateCount())
                    .mapToObj(s -> (Observation) new Observation.Seen(1 << s))
                    .toList();
        }
        return IntStream.range(0, matrix.rowCount())
                .mapToObj(r -> matrix.cell(r, c))
                .flatMap(cell -> cell instanceof Cell.Numeric n
                        ? Stream.of(Math.rint(n.low()), Math.rint((n.min() + n.max()) / 2))
                        : Stream.empty())
                .distinct()
                .sorted()
                .map(x -> (Observation) new Observation.MeasuredObservation(x, character.giveOrTake(x)))
                .toList();
    }

    /** What these answers come to, if it is a trap. */
    public Optional<Trap> trap(List<Answer> answers) {
        return trap(answers, identifier.identify(answers, IdentifyOptions.WEIGH));
    }

    private Optional<Trap> trap(List<Answer> answers, Identification found) {
        tried.incrementAndGet();
        int leader = found.standings().get(0).row();
        boolean dangerous = matrix.row(leader).hazard().isDangerous();
        if (found.conclusion().kind() != Identification.Kind.SETTLED || dangerous) {
            return Optional.empty();
        }
        settled.incrementAndGet();
        return dangers.stream()
                .filter(h -> matrix.row(h).name() != matrix.row(leader).name())
                .filter(h -> !isContradictedTwice(h, answers))
                .findFirst()
                .map(h -> new Trap(answers, leader, h));
    }

    private boolean isContradictedTwice(int danger, List<Answer> answers) {
        List<Integer> against = answers.stream()
                .filter(a -> contradicts(danger, a))
                .map(Answer::character)
                .toList();
        return against.stream().anyMatch(a -> against.stream().anyMatch(b -> areSeparate(a, b)));
    }

    private boolean areSeparate(int a, int b) {
        MatrixCharacter one = matrix.character(a);
        MatrixCharacter other = matrix.character(b);
        return one.organ() != other.organ()
                && !one.around().contains(other.organ())
                && !other.around().contains(one.organ());
    }

    /** By something that is there, in a cell that somebody vouches for. */
    private boolean contradicts(int danger, Answer answer) {
        int c = answer.character();
        MatrixCharacter character = matrix.character(c);
        if (!character.countsForSafety() || !matrix.isUsable(danger, c)) {
            return false;
        }
        if (answer.observation() instanceof Observation.Seen seen) {
            return matrix.cell(danger, c) instanceof Cell.Categorical shown
                    && (shown.readable() & seen.states()) == 0
                    && (character.absence() & seen.states()) == 0;
        }
        Observation.MeasuredObservation read = (Observation.MeasuredObservation) answer.observation();
        return matrix.cell(danger, c) instanceof Cell.Numeric range
                && (read.value() + read.uncertainty() < range.min() || read.value() - read.uncertainty() > range.max());
    }

    /** Every set of answers to so many characters. */
    public List<Trap> exhaustive(int depth) {
        return IntStream.range(0, single.size())
                .parallel()
                .mapToObj(i -> deeper(List.of(single.get(i)), i, depth))
                .flatMap(List::stream)
                .toList();
    }

    private List<Trap> deeper(List<Answer> answers, int last, int depth) {
        List<Trap> traps = new ArrayList<>(trap(answers).stream().toList());
        for (int i = last + 1; i < single.size() && answers.size() < depth; i++) {
            Answer next = single.get(i);
            if (answers.stream().noneMatch(a -> a.character() == next.character())) {
                List<Answer> more = new ArrayList<>(answers);
                more.add(next);
                traps.addAll(deeper(more, i, depth));
            }
        }
        return traps;
    }

    private record Scored(List<Answer> answers, double score) {}

    /** The most promising sets of answers, made longer again and again. */
    public List<Trap> beam(int width) {
        List<Trap> traps = new ArrayList<>();
        List<List<Answer>> best = List.of(List.of());
        for (int depth = 1; depth <= LONGEST; depth++) {
            List<Scored> next = best.parallelStream()
                    .flatMap(answers -> single.stream()
                            .filter(s -> answers.stream().noneMatch(a -> a.character() == s.character()))
                            .map(s -> Stream.concat(answers.stream(), Stream.of(s))
                                    .sorted(Comparator.comparing(Answer::character))
                                    .toList()))
                    .distinct()
                    .map(answers -> {
                        Identification found = identifier.identify(answers, IdentifyOptions.WEIGH);
                        synchronized (traps) {
                            trap(answers, found).ifPresent(traps::add);
                        }
                        return new Scored(answers, promise(answers, found));
                    })
                    .toList();
            best = next.stream()
                    .sorted(Comparator.comparingDouble((Scored s) -> -s.score()))
                    .limit(width)
                    .map(Scored::answers)
                    .toList();
        }
        return traps;
    }

    /** A harmless name that leads by far, and dangers that are nearly ruled out by signs that should not do it. */
    private double promise(List<Answer> answers, Identification found) {
        Identification.Standing leader = found.standings().get(0);
        if (matrix.row(leader.row()).hazard().isDangerous()) {
            return -1;
        }
        ToDoubleFunction<Identification.Margin> near =
                m -> Math.min(1, Math.log(Math.max(1, m.support())) / Math.log(m.needed()));
        double margins = found.margins().stream().mapToDouble(near).average().orElse(0);
        long unshaken =
                dangers.stream().filter(h -> !isContradictedTwice(h, answers)).count();
        return leader.namePosterior() + margins + (unshaken > 0 ? 0.5 : 0);
    }

    /** What a specimen of a harmless row shows, read four times each, with some answers of another one among them. */
    public List<Trap> random(int sets, long seed) {
        return IntStream.range(0, sets)
                .parallel()
                .mapToObj(n -> trap(drawn(new Random(seed * 1_000_003 + n))))
                .flatMap(Optional::stream)
                .toList();
    }

    private List<Answer> drawn(Random random) {
        int row = random.nextInt(matrix.rowCount());
        int length = 2 + random.nextInt(LONGEST);
        List<Answer> answers = new ArrayList<>();
        for (int c : random.ints(length, 0, matrix.characterCount()).distinct().toArray()) {
            int shows = random.nextInt(8) == 0 ? random.nextInt(matrix.rowCount()) : row;
            List<Answer> fitting = single.stream()
                    .filter(a -> a.character() == c && fits(shows, a))
                    .toList();
            if (!fitting.isEmpty()) {
                answers.add(fitting.get(random.nextInt(fitting.size())));
            }
        }
        return answers;
    }

    private boolean fits(int row, Answer answer) {
        if (answer.observation() instanceof Observation.Seen seen) {
            return matrix.cell(row, answer.character()) instanceof Cell.Categorical shown
                    && (shown.support() & seen.states()) != 0;
        }
        double x = ((Observation.MeasuredObservation) answer.observation()).value();
        return matrix.cell(row, answer.character()) instanceof Cell.Numeric range
                && x >= range.min()
                && x <= range.max();
    }
}
