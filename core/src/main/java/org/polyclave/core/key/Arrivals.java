package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.polyclave.core.key.Key.Couplet;
import org.polyclave.core.key.Key.Statement;
import org.polyclave.core.key.Key.ToRows;
import org.polyclave.core.key.Proof.Failure;
import org.polyclave.core.key.Proof.Kind;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.RangeDistribution;

/**
 * Which specimens come to which couplets and terminals of a key, and what is wrong with these: nobody may be named who does
 * not come there, nor two whom a character could still separate, and a tendency must lean the way it says.
 */
final class Arrivals {
    /** Boxes that are kept at a terminal with several names, to see whether a character separates them. */
    private static final int KEPT_AT_TERMINAL = 64;

    private final Matrix matrix;
    private final Key key;
    private final KeyShape shape;
    private final Failures failures;
    private final Distributions distributions;
    private final Set<Integer> reachedCouplets = new HashSet<>();
    private final Map<Place, Set<Integer>> arrivedRows = new LinkedHashMap<>();
    private final Map<Place, List<SupportBox>> arrivedBoxes = new LinkedHashMap<>();
    private final Map<Place, Map<Statement, Agreement>> tendencies = new LinkedHashMap<>();

    Arrivals(Matrix matrix, Key key, KeyShape shape, Failures failures) {
        this.matrix = matrix;
        this.key = key;
        this.shape = shape;
        this.failures = failures;
        distributions = new Distributions(matrix, RangeDistribution.Tails.CUT);
    }

    /** One lead of the key. */
    private record Place(int couplet, int lead) {}

    /** How many specimens of the lead's rows, and of the others', agree with a tendency; counted evenly and by weight. */
    private static final class Agreement {
        private final double[] own = new double[4];
        private final double[] others = new double[4];

        void add(boolean follows, double share, double weight) {
            double[] sums = follows ? own : others;
            sums[0] += share;
            sums[1] += 1;
            sums[2] += share * weight;
            sums[3] += weight;
        }

        boolean isContrary() {
            boolean compared = own[1] > 0 && others[1] > 0;
            boolean rarer =
                    compared && own[0] / own[1] < others[0] / others[1] && own[2] / own[3] < others[2] / others[3];
            return rarer || (own[1] > 0 && own[0] == 0);
        }
    }

    void reach(Couplet couplet) {
        reachedCouplets.add(couplet.number());
    }

    /** The specimens of a box end at a lead. */
    void end(Couplet couplet, int lead, SupportBox box) {
        Place place = new Place(couplet.number(), lead);
        arrivedRows.computeIfAbsent(place, p -> new HashSet<>()).add(box.row());
        if (namesSeveral(terminal(place))) {
            List<SupportBox> boxes = arrivedBoxes.computeIfAbsent(place, p -> new ArrayList<>());
            if (boxes.size() < KEPT_AT_TERMINAL) {
                boxes.add(box.copy());
            }
        }
    }

    /** The specimens of a box come by a tendency, of the lead that they follow or of another. */
    void compare(Couplet couplet, int lead, Statement tendency, SupportBox box, boolean follows) {
        tendencies
                .computeIfAbsent(new Place(couplet.number(), lead), p -> new LinkedHashMap<>())
                .computeIfAbsent(tendency, s -> new Agreement())
                .add(follows, share(box, tendency), matrix.row(box.row()).weight());
    }

    /** Of what the specimens of a box may still show, the share that agrees with a statement. */
    private double share(SupportBox box, Statement statement) {
        int c = statement.character();
        Cell cell = matrix.cell(box.row(), c);
        if (cell instanceof Cell.Categorical shown) {
            int left = ((Atoms.States) box.atoms(c)).mask();
            double all = shown.share(left);
            return all > 0 ? shown.share(left & ((Atoms.States) statement.atoms()).mask()) / all : 0;
        }
        Atoms.Interval left = (Atoms.Interval) box.atoms(c);
        Atoms.Interval both = left.and((Atoms.Interval) statement.atoms());
        RangeDistribution range = distributions.range(c, cell);
        // A whole number stands for all that is rounded to it.
        double half = matrix.character(c).type() == CharacterType.COUNT ? 0.5 : 0;
        double all = range.share(left.min() - half, left.max() + half);
        if (both.isEmpty(half > 0)) {
            return 0;
        }
        return all > 0 ? range.share(both.min() - half, both.max() + half) / all : 1;
    }

    private boolean namesSeveral(ToRows terminal) {
        return terminal.rows().stream()
                .anyMatch(r -> !matrix.sharesName(r, terminal.rows().get(0)));
    }

    /** @param complete whether every specimen was followed: only then is it known who does not come */
    void check(boolean complete) {
        if (complete) {
            checkReached();
        }
        checkTendencies();
        if (complete) {
            checkTerminals();
        }
    }

    private void checkReached() {
        for (Couplet couplet : key.couplets()) {
            if (!reachedCouplets.contains(couplet.number())) {
                failures.add(Failure.at(Kind.UNREACHED_COUPLET, couplet.number()));
                continue;
            }
            for (int l = 0; l < couplet.leads().size(); l++) {
                if (couplet.leads().get(l).to() instanceof ToRows
                        && !arrivedRows.containsKey(new Place(couplet.number(), l))) {
                    failures.add(Failure.lead(Kind.UNREACHED_TERMINAL, couplet.number(), l));
                }
            }
        }
    }

    private void checkTendencies() {
        tendencies.forEach((place, statements) -> statements.forEach((statement, agreement) -> {
            if (agreement.isContrary()) {
                failures.add(new Failure(
                        Kind.CONTRARY_TENDENCY,
                        OptionalInt.of(place.couplet()),
                        OptionalInt.of(place.lead() + 1),
                        OptionalInt.empty(),
                        OptionalInt.of(statement.character()),
                        Optional.of(statement.atoms())));
            }
        }));
    }

    private void checkTerminals() {
        arrivedRows.forEach((place, rows) -> {
            for (int row : terminal(place).rows()) {
                if (!rows.contains(row)) {
                    failures.add(named(Kind.NAMED_IN_VAIN, place, row));
                }
            }
            checkApart(place, arrivedBoxes.getOrDefault(place, List.of()));
        });
    }

    private ToRows terminal(Place place) {
        Couplet couplet = shape.couplet(place.couplet()).orElseThrow();
        return (ToRows) couplet.leads().get(place.lead()).to();
    }

    private static Failure named(Kind kind, Place place, int row) {
        return new Failure(
                kind,
                OptionalInt.of(place.couplet()),
                OptionalInt.of(place.lead() + 1),
                OptionalInt.of(row),
                OptionalInt.empty(),
                Optional.empty());
    }

    /** A key without couplets must not name together what a character separates. */
    void checkWhole() {
        List<SupportBox> boxes = new ArrayList<>();
        for (int row : key.whole().rows()) {
            boxes.add(new SupportBox(matrix, row));
        }
        Optional<int[]> apart = firstApart(boxes);
        if (apart.isPresent()) {
            failures.add(new Failure(
                    Kind.COULD_BE_SEPARATED,
                    OptionalInt.empty(),
                    OptionalInt.empty(),
                    OptionalInt.of(apart.get()[0]),
                    OptionalInt.of(apart.get()[1]),
                    Optional.empty()));
        }
    }

    private void checkApart(Place place, List<SupportBox> boxes) {
        firstApart(boxes)
                .ifPresent(apart -> failures.add(new Failure(
                        Kind.COULD_BE_SEPARATED,
                        OptionalInt.of(place.couplet()),
                        OptionalInt.of(place.lead() + 1),
                        OptionalInt.of(apart[0]),
                        OptionalInt.of(apart[1]),
                        Optional.empty())));
    }

    /** The first row of a pair of different names that a character separates, and the character. */
    private Optional<int[]> firstApart(List<SupportBox> boxes) {
        boolean dangersOnly =
                boxes.stream().allMatch(b -> matrix.row(b.row()).hazard().isDangerous());
        for (int i = 0; i < boxes.size(); i++) {
            for (int j = 0; j < i; j++) {
                boolean differ =
                        !matrix.sharesName(boxes.get(i).row(), boxes.get(j).row());
                for (int c = 0; differ && c < matrix.characterCount(); c++) {
                    boolean asked = matrix.character(c).role().decides()
                            && !(dangersOnly && matrix.character(c).isHandling());
                    if (asked && boxes.get(i).isApartFrom(boxes.get(j), c)) {
                        return Optional.of(new int[] {boxes.get(i).row(), c});
                    }
                }
            }
        }
        return Optional.empty();
    }
}
