package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.TreeSet;
import org.polyclave.core.key.Atoms.States;
import org.polyclave.core.key.Key.Couplet;
import org.polyclave.core.key.Key.Lead;
import org.polyclave.core.key.Key.Reason;
import org.polyclave.core.key.Key.Role;
import org.polyclave.core.key.Key.Statement;
import org.polyclave.core.key.Key.Target;
import org.polyclave.core.key.Key.ToCouplet;
import org.polyclave.core.key.Key.ToRows;
import org.polyclave.core.key.KeyResult.Alternative;
import org.polyclave.core.key.KeyResult.CoupletReason;
import org.polyclave.core.matrix.CharacterType;

/**
 * Numbers a key tree in reading order, the shorter lead first, with back-references; adds confirming statements and
 * the reasons of its couplets.
 */
final class KeyWriter {
    private final KeyProblem problem;
    private final int confirming;
    private final SplitCost cost;
    private final List<Couplet> couplets = new ArrayList<>();
    private final List<CoupletReason> reasons = new ArrayList<>();

    /** @param cost by which prices are told */
    KeyWriter(KeyProblem problem, int confirming, SplitCost cost) {
        this.problem = problem;
        this.cost = cost;
        this.confirming = confirming;
    }

    Key write(KeyTree tree) {
        Position start = Position.start(problem);
        if (tree instanceof KeyTree.Stop stop) {
            return new Key(List.of(), terminal(stop));
        }
        number((KeyTree.Choice) tree, start, OptionalInt.empty());
        return Key.of(couplets);
    }

    List<CoupletReason> reasons() {
        return reasons;
    }

    /**
     * A lead of a couplet; of several each is made by a split of its own.
     *
     * @param before where its split is asked
     */
    private record Branch(Position before, Split split, boolean first, Position position, KeyTree next) {
        static List<Branch> of(KeyTree.Choice choice, Position position) {
            Split split = choice.chosen().split();
            List<Branch> branches = new ArrayList<>();
            for (boolean first : new boolean[] {true, false}) {
                Position after = position.follow(split, first);
                KeyTree next = first ? choice.first() : choice.second();
                if (next instanceof KeyTree.Choice more && more.goesOn()) {
                    branches.addAll(of(more, after));
                } else {
                    branches.add(new Branch(position, split, first, after, next));
                }
            }
            return branches;
        }
    }

    private int number(KeyTree.Choice choice, Position position, OptionalInt from) {
        int number = couplets.size() + 1;
        couplets.add(new Couplet(number, from, List.of()));
        List<Branch> branches = inReadingOrder(Branch.of(choice, position));
        reasons.add(reason(number, choice, position, branches));
        // What confirms two leads is not made for more.
        List<ConfirmingStatements.Pair> confirms = branches.size() == 2
                ? new ConfirmingStatements(position, choice.chosen().split()).find(confirming)
                : List.of();
        List<Lead> leads = new ArrayList<>();
        for (Branch branch : branches) {
            Target target = branch.next() instanceof KeyTree.Choice more
                    ? new ToCouplet(number(more, branch.position(), OptionalInt.of(number)))
                    : terminal((KeyTree.Stop) branch.next());
            List<Statement> statements =
                    branches.size() > 2 ? List.of(statement(branch, position)) : statements(branch, confirms);
            leads.add(new Lead(statements, target));
        }
        couplets.set(number - 1, new Couplet(number, from, leads));
        return number;
    }

    /** Of two leads the shorter first; more of them as their states or numbers go. */
    private List<Branch> inReadingOrder(List<Branch> branches) {
        List<Branch> sorted = new ArrayList<>(branches);
        int c = branches.get(0).split().character();
        if (branches.size() == 2) {
            sorted.sort(Comparator.comparingInt(branch -> branch.next().couplets()));
        } else if (branches.get(0).split().isNumeric()) {
            sorted.sort(Comparator.comparingDouble(branch -> branch.position().low[c]));
        } else {
            sorted.sort(Comparator.comparingInt(branch -> Integer.numberOfTrailingZeros(branch.position().masks[c])));
        }
        return sorted;
    }

    private ToRows terminal(KeyTree.Stop stop) {
        TreeSet<Integer> rows = new TreeSet<>();
        TreeSet<Integer> targets = new TreeSet<>();
        for (int specimens : stop.classes()) {
            rows.add(problem.rowOf[specimens]);
            targets.add(problem.nameOf[specimens]);
        }
        Reason reason = rows.size() == 1 ? Reason.NONE : targets.size() == 1 ? Reason.ONE_TAXON : Reason.INSEPARABLE;
        return new ToRows(List.copyOf(rows), reason);
    }

    private List<Statement> statements(Branch branch, List<ConfirmingStatements.Pair> confirms) {
        Position position = branch.before();
        Split split = branch.split();
        boolean whole = problem.matrix.character(split.character()).type() == CharacterType.COUNT;
        Atoms deciding = split.isNumeric()
                ? ConfirmingStatements.interval(split.cut(), branch.first(), whole)
                : new States(split.mask(branch.first()));
        Optional<DoubtfulLimit> limit = limit(position, split);
        List<Statement> statements = new ArrayList<>();
        statements.add(new Statement(
                split.character(),
                deciding,
                Role.DECIDING,
                limit.flatMap(l -> l.between(position.low[split.character()], position.high[split.character()])),
                // A rough size must not stand between a reader and a dangerous taxon.
                position.holdsDangerous() ? Optional.empty() : limit.flatMap(DoubtfulLimit::handy)));
        for (ConfirmingStatements.Pair pair : confirms) {
            statements.add(branch.first() ? pair.first() : pair.second());
        }
        return statements;
    }

    /**
     * One lead of several: all that its splits leave. Of a number it tells how far its upper limit is in doubt.
     *
     * @param position where the couplet is asked
     */
    private Statement statement(Branch branch, Position position) {
        int c = branch.split().character();
        if (!branch.split().isNumeric()) {
            return new Statement(c, new States(branch.position().masks[c]), Role.DECIDING);
        }
        boolean whole = problem.matrix.character(c).type() == CharacterType.COUNT;
        double low = branch.position().low[c];
        double high = branch.position().high[c];
        Atoms.Interval above =
                low == position.low[c] ? Atoms.Interval.ALL : ConfirmingStatements.interval(low, false, whole);
        Atoms.Interval below =
                high == position.high[c] ? Atoms.Interval.ALL : ConfirmingStatements.interval(high, true, whole);
        Optional<Key.Doubt> doubt = branch.first()
                ? limit(branch.before(), branch.split()).flatMap(l -> l.between(low, branch.before().high[c]))
                : Optional.empty();
        return new Statement(c, above.and(below), Role.DECIDING, doubt, Optional.empty());
    }

    /** How far the limit of a number is in doubt; empty for states. */
    private Optional<DoubtfulLimit> limit(Position position, Split split) {
        if (!split.isNumeric()) {
            return Optional.empty();
        }
        int c = split.character();
        DoubtfulLimit limit = new DoubtfulLimit(problem, c, split.cut());
        for (int k = 0; k < position.size(); k++) {
            boolean lower = position.enters(k, split, true);
            // Of a row that stands in both leads no individual goes astray.
            if (lower != position.enters(k, split, false)) {
                limit.add(position.pattern(c, k), position.mass[k], !lower);
            }
        }
        return Optional.of(limit);
    }

    private CoupletReason reason(int number, KeyTree.Choice choice, Position position, List<Branch> branches) {
        TreeSet<Integer> rows = new TreeSet<>();
        TreeSet<Integer> duplicated = new TreeSet<>();
        for (int specimens : position.classes) {
            rows.add(problem.rowOf[specimens]);
        }
        TreeSet<Integer> met = new TreeSet<>();
        for (Branch branch : branches) {
            TreeSet<Integer> here = new TreeSet<>();
            for (int specimens : branch.position().classes) {
                here.add(problem.rowOf[specimens]);
            }
            here.stream().filter(met::contains).forEach(duplicated::add);
            met.addAll(here);
        }
        List<Alternative> alternatives = choice.alternatives().stream()
                .map(a -> new Alternative(
                        a.split().character(),
                        a.gain(),
                        a.duplicated(),
                        cost.misread(position, a.split()),
                        cost.prices(position, a.split())))
                .toList();
        Asked asked = new Asked();
        asked.add(choice, position, 1);
        return new CoupletReason(
                number,
                choice.chosen().split().character(),
                asked.gain,
                asked.misread,
                List.copyOf(rows),
                List.copyOf(duplicated),
                cost.prices(position, choice.chosen().split()),
                alternatives);
    }

    /** What the splits of one couplet give and how often they are misread, for the specimens that come to it. */
    private final class Asked {
        private double gain;
        private double misread;

        void add(KeyTree.Choice choice, Position position, double share) {
            Split split = choice.chosen().split();
            gain += share * choice.chosen().gain();
            misread += share * cost.misread(position, split);
            for (boolean first : new boolean[] {true, false}) {
                KeyTree next = first ? choice.first() : choice.second();
                Position after = position.follow(split, first);
                if (next instanceof KeyTree.Choice more && more.goesOn()) {
                    add(more, after, position.total > 0 ? share * after.total / position.total : share);
                }
            }
        }
    }
}
