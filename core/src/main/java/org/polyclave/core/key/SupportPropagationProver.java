package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.polyclave.core.key.Key.Couplet;
import org.polyclave.core.key.Key.Lead;
import org.polyclave.core.key.Key.Statement;
import org.polyclave.core.key.Key.ToCouplet;
import org.polyclave.core.key.Key.ToRows;
import org.polyclave.core.key.Proof.Failure;
import org.polyclave.core.key.Proof.Kind;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Controller;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.RangeDistribution;

/**
 * Proof by propagating narrowed supports, not by sampling.
 *
 * <p>For each row the set of what its specimens may still show is carried down the key as a box (one set a character). At a
 * couplet the box is cut along the leads' limits into observations on which the leads cannot differ; each must be accepted by
 * exactly one lead, and each lead that accepts one is followed with the narrowed box. Where a couplet asks a character of
 * which it is open whether it exists, the box is divided by what its controller shows first, so that a path divides only what
 * it asks. Sufficient statements must hold for all who follow their lead, and for nobody who follows another; tendencies must
 * hold of more specimens of their lead than of the others. At a terminal nobody may be named who does not come there, nor two
 * whom a character could still separate. Time grows with the number of (row, path) pairs times the observations at a
 * couplet; memory with the depth, and with the boxes at terminals that name several. A key in which paths meet again is
 * followed along each path; beyond {@link #MAX_VISITS} the proof says that it is incomplete.
 */
public final class SupportPropagationProver implements KeyProver {
    static final long MAX_VISITS = 50_000_000;
    static final int MAX_FAILURES = 500;
    /** Boxes that are kept at a terminal with several names, to see whether a character separates them. */
    private static final int KEPT_AT_TERMINAL = 64;

    @Override
    public Proof prove(Matrix matrix, Key key) {
        return new Run(matrix, key).run();
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

    private static final class Run {
        private final Matrix matrix;
        private final Key key;
        private final Distributions distributions;
        private final Map<Integer, Couplet> byNumber = new HashMap<>();
        private final Set<Failure> failures = new LinkedHashSet<>();
        private final Set<Integer> reachedCouplets = new HashSet<>();
        private final Map<Place, Set<Integer>> arrivedRows = new LinkedHashMap<>();
        private final Map<Place, List<SupportBox>> arrivedBoxes = new LinkedHashMap<>();
        private final Map<Place, Map<Statement, Agreement>> tendencies = new LinkedHashMap<>();
        private final Set<Integer> namedRows = new HashSet<>();
        private long visits;

        Run(Matrix matrix, Key key) {
            this.matrix = matrix;
            this.key = key;
            distributions = new Distributions(matrix, RangeDistribution.Tails.CUT);
        }

        Proof run() {
            if (key.couplets().isEmpty()) {
                namedRows.addAll(key.whole().rows());
                checkWhole();
            } else {
                checkShape();
                if (failures.stream().noneMatch(f -> f.kind() == Kind.LOOP)) {
                    propagate();
                    checkReached();
                    checkTendencies();
                    checkTerminals();
                }
                collectNames();
            }
            for (int row = 0; row < matrix.rowCount(); row++) {
                if (!namedRows.contains(row)) {
                    fail(Failure.row(Kind.ROW_MISSING, row));
                }
            }
            List<Failure> found = new ArrayList<>(failures);
            found.sort(
                    (a, b) -> Integer.compare(a.couplet().orElse(0), b.couplet().orElse(0)));
            return new Proof(found, visits, visits <= MAX_VISITS);
        }

        private void fail(Failure failure) {
            if (failures.size() < MAX_FAILURES) {
                failures.add(failure);
            }
        }

        private void checkShape() {
            for (Couplet couplet : key.couplets()) {
                if (byNumber.put(couplet.number(), couplet) != null) {
                    fail(Failure.at(Kind.DUPLICATE_NUMBER, couplet.number()));
                }
                if (couplet.leads().size() < 2) {
                    fail(Failure.at(Kind.TOO_FEW_LEADS, couplet.number()));
                }
            }
            for (Couplet couplet : key.couplets()) {
                for (int l = 0; l < couplet.leads().size(); l++) {
                    if (couplet.leads().get(l).to() instanceof ToCouplet to && !byNumber.containsKey(to.number())) {
                        fail(Failure.lead(Kind.DANGLING_TARGET, couplet.number(), l));
                    }
                }
                checkBackReference(couplet);
            }
            findLoops(key.couplets().get(0), new HashSet<>(), new HashSet<>());
        }

        private void checkBackReference(Couplet couplet) {
            if (couplet.from().isEmpty()) {
                return;
            }
            Couplet from = byNumber.get(couplet.from().getAsInt());
            boolean leadsHere =
                    from != null && from.leads().stream().anyMatch(l -> l.to().equals(new ToCouplet(couplet.number())));
            if (!leadsHere) {
                fail(Failure.at(Kind.WRONG_BACK_REFERENCE, couplet.number()));
            }
        }

        /** Depth first with an explicit stack, so that a hand-made chain of thousands of couplets is read too. */
        private void findLoops(Couplet first, Set<Integer> onPath, Set<Integer> done) {
            List<int[]> stack = new ArrayList<>();
            stack.add(new int[] {first.number(), 0});
            onPath.add(first.number());
            while (!stack.isEmpty()) {
                int[] top = stack.get(stack.size() - 1);
                List<Lead> leads = byNumber.get(top[0]) == null
                        ? List.of()
                        : byNumber.get(top[0]).leads();
                if (top[1] >= leads.size()) {
                    onPath.remove(top[0]);
                    done.add(top[0]);
                    stack.remove(stack.size() - 1);
                    continue;
                }
                int l = top[1]++;
                if (leads.get(l).to() instanceof ToCouplet to) {
                    if (onPath.contains(to.number())) {
                        fail(Failure.lead(Kind.LOOP, top[0], l));
                    } else if (!done.contains(to.number()) && byNumber.containsKey(to.number())) {
                        onPath.add(to.number());
                        stack.add(new int[] {to.number(), 0});
                    }
                }
            }
        }

        private void propagate() {
            for (int row = 0; row < matrix.rowCount(); row++) {
                follow(key.couplets().get(0), new SupportBox(matrix, row));
            }
        }

        private void follow(Couplet couplet, SupportBox box) {
            reachedCouplets.add(couplet.number());
            Optional<Controller> open = firstOpenCondition(couplet, box);
            if (visits > MAX_VISITS) {
                return;
            }
            if (open.isPresent()) {
                followDivided(couplet, box, open.get());
                return;
            }
            List<Integer> asked = askedCharacters(couplet);
            boolean single = true;
            for (int character : asked) {
                single &= box.isCertain(character);
            }
            if (!checkObservations(couplet, box, asked, single)) {
                return;
            }
            for (int l = 0; l < couplet.leads().size(); l++) {
                Lead lead = couplet.leads().get(l);
                List<SupportBox.Saved> saved = new ArrayList<>();
                if (narrow(box, lead, saved)) {
                    checkConfirming(couplet, l, box);
                    arrive(couplet, l, box);
                }
                box.restore(saved);
            }
        }

        private static Optional<Controller> firstOpenCondition(Couplet couplet, SupportBox box) {
            for (Lead lead : couplet.leads()) {
                for (Statement statement : lead.statements()) {
                    Optional<Controller> open = box.firstOpenCondition(statement.character());
                    if (open.isPresent()) {
                        return open;
                    }
                }
            }
            return Optional.empty();
        }

        /** Those that meet a condition, and those that do not. */
        private void followDivided(Couplet couplet, SupportBox box, Controller condition) {
            visits++;
            for (int states : new int[] {condition.states(), ~condition.states()}) {
                List<SupportBox.Saved> saved = new ArrayList<>();
                box.restrict(condition.character(), states, saved);
                follow(couplet, box);
                box.restore(saved);
            }
        }

        private void checkConfirming(Couplet couplet, int l, SupportBox box) {
            for (int m = 0; m < couplet.leads().size(); m++) {
                for (Statement statement : couplet.leads().get(m).statements()) {
                    boolean shown = box.isCertain(statement.character());
                    if (statement.role() == Key.Role.SUFFICIENT) {
                        boolean holds = m == l
                                ? shown && box.isWithin(statement)
                                : shown && !SupportBox.meets(box.atoms(statement.character()), statement.atoms());
                        if (!holds) {
                            fail(at(Kind.NOT_SUFFICIENT, couplet, m, box, statement.character()));
                        }
                    } else if (statement.role() == Key.Role.TENDENCY && shown && box.isKnown(statement.character())) {
                        tendencies
                                .computeIfAbsent(new Place(couplet.number(), m), p -> new LinkedHashMap<>())
                                .computeIfAbsent(statement, s -> new Agreement())
                                .add(
                                        m == l,
                                        share(box, statement),
                                        matrix.row(box.row()).weight());
                    }
                }
            }
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

        private static Failure at(Kind kind, Couplet couplet, int l, SupportBox box, int character) {
            return new Failure(
                    kind,
                    OptionalInt.of(couplet.number()),
                    OptionalInt.of(l + 1),
                    OptionalInt.of(box.row()),
                    OptionalInt.of(character),
                    Optional.of(box.atoms(character)));
        }

        private void arrive(Couplet couplet, int l, SupportBox box) {
            Lead lead = couplet.leads().get(l);
            if (lead.to() instanceof ToCouplet to) {
                Couplet next = byNumber.get(to.number());
                if (next != null) {
                    follow(next, box);
                }
                return;
            }
            int row = box.row();
            Place place = new Place(couplet.number(), l);
            arrivedRows.computeIfAbsent(place, p -> new HashSet<>()).add(row);
            if (namesSeveral((ToRows) lead.to())) {
                List<SupportBox> boxes = arrivedBoxes.computeIfAbsent(place, p -> new ArrayList<>());
                if (boxes.size() < KEPT_AT_TERMINAL) {
                    boxes.add(box.copy());
                }
            }
            if (!((ToRows) lead.to()).rows().contains(row)) {
                List<Integer> asked = askedCharacters(couplet);
                int character = asked.isEmpty() ? -1 : asked.get(0);
                fail(new Failure(
                        Kind.WRONG_NAME,
                        OptionalInt.of(couplet.number()),
                        OptionalInt.of(l + 1),
                        OptionalInt.of(row),
                        character < 0 ? OptionalInt.empty() : OptionalInt.of(character),
                        character < 0 ? Optional.empty() : Optional.of(box.atoms(character))));
            }
        }

        private boolean namesSeveral(ToRows terminal) {
            return terminal.rows().stream()
                    .anyMatch(r -> !matrix.sharesName(r, terminal.rows().get(0)));
        }

        private static boolean narrow(SupportBox box, Lead lead, List<SupportBox.Saved> saved) {
            for (Statement statement : lead.statements()) {
                if (statement.role() == Key.Role.DECIDING && !box.narrow(statement, saved)) {
                    return false;
                }
            }
            return true;
        }

        private static List<Integer> askedCharacters(Couplet couplet) {
            List<Integer> asked = new ArrayList<>();
            for (Lead lead : couplet.leads()) {
                for (Statement statement : lead.statements()) {
                    if (statement.role() == Key.Role.DECIDING && !asked.contains(statement.character())) {
                        asked.add(statement.character());
                    }
                }
            }
            return asked;
        }

        /** Every combination of observations on the asked characters must be accepted by one lead. */
        private boolean checkObservations(Couplet couplet, SupportBox box, List<Integer> asked, boolean single) {
            List<List<Atoms>> choices = new ArrayList<>();
            for (int character : asked) {
                choices.add(box.observations(character, couplet));
            }
            int[] at = new int[asked.size()];
            while (true) {
                if (++visits > MAX_VISITS) {
                    return false;
                }
                checkOne(couplet, box.row(), asked, choices, at, single);
                int k = asked.size() - 1;
                while (k >= 0 && ++at[k] == choices.get(k).size()) {
                    at[k--] = 0;
                }
                if (k < 0) {
                    return true;
                }
            }
        }

        private void checkOne(
                Couplet couplet, int row, List<Integer> asked, List<List<Atoms>> choices, int[] at, boolean single) {
            int accepting = 0;
            int second = -1;
            for (int l = 0; l < couplet.leads().size(); l++) {
                if (accepts(couplet.leads().get(l), asked, choices, at) && ++accepting == 2) {
                    second = l;
                }
            }
            if (accepting == 0 || (accepting > 1 && single)) {
                OptionalInt character = asked.isEmpty() ? OptionalInt.empty() : OptionalInt.of(asked.get(0));
                Optional<Atoms> seen = asked.isEmpty()
                        ? Optional.empty()
                        : Optional.of(choices.get(0).get(at[0]));
                fail(new Failure(
                        accepting == 0 ? Kind.NO_LEAD : Kind.SEVERAL_LEADS,
                        OptionalInt.of(couplet.number()),
                        second < 0 ? OptionalInt.empty() : OptionalInt.of(second + 1),
                        OptionalInt.of(row),
                        character,
                        seen));
            }
        }

        private static boolean accepts(Lead lead, List<Integer> asked, List<List<Atoms>> choices, int[] at) {
            for (Statement statement : lead.statements()) {
                if (statement.role() == Key.Role.DECIDING) {
                    int k = asked.indexOf(statement.character());
                    if (!SupportBox.meets(choices.get(k).get(at[k]), statement.atoms())) {
                        return false;
                    }
                }
            }
            return true;
        }

        private void checkReached() {
            if (visits > MAX_VISITS) {
                return;
            }
            for (Couplet couplet : key.couplets()) {
                if (!reachedCouplets.contains(couplet.number())) {
                    fail(Failure.at(Kind.UNREACHED_COUPLET, couplet.number()));
                    continue;
                }
                for (int l = 0; l < couplet.leads().size(); l++) {
                    if (couplet.leads().get(l).to() instanceof ToRows
                            && !arrivedRows.containsKey(new Place(couplet.number(), l))) {
                        fail(Failure.lead(Kind.UNREACHED_TERMINAL, couplet.number(), l));
                    }
                }
            }
        }

        private void checkTendencies() {
            tendencies.forEach((place, statements) -> statements.forEach((statement, agreement) -> {
                if (agreement.isContrary()) {
                    fail(new Failure(
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
            if (visits > MAX_VISITS) {
                return;
            }
            arrivedRows.forEach((place, rows) -> {
                for (int row : terminal(place).rows()) {
                    if (!rows.contains(row)) {
                        fail(named(Kind.NAMED_IN_VAIN, place, row));
                    }
                }
                checkApart(place, arrivedBoxes.getOrDefault(place, List.of()));
            });
        }

        private ToRows terminal(Place place) {
            Couplet couplet = java.util.Objects.requireNonNull(byNumber.get(place.couplet()));
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
        private void checkWhole() {
            List<SupportBox> boxes = new ArrayList<>();
            for (int row : key.whole().rows()) {
                boxes.add(new SupportBox(matrix, row));
            }
            Optional<int[]> apart = firstApart(boxes);
            if (apart.isPresent()) {
                fail(new Failure(
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
                    .ifPresent(apart -> fail(new Failure(
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
                        boolean asked = !(dangersOnly && matrix.character(c).isHandling());
                        if (asked && boxes.get(i).isApartFrom(boxes.get(j), c)) {
                            return Optional.of(new int[] {boxes.get(i).row(), c});
                        }
                    }
                }
            }
            return Optional.empty();
        }

        private void collectNames() {
            for (Couplet couplet : key.couplets()) {
                for (Lead lead : couplet.leads()) {
                    if (lead.to() instanceof ToRows terminal) {
                        namedRows.addAll(terminal.rows());
                    }
                }
            }
        }
    }
}
