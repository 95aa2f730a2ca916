package org.polyclave.core.key;

import java.util.ArrayList;
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

    private int number(KeyTree.Choice choice, Position position, OptionalInt from) {
        int number = couplets.size() + 1;
        Split split = choice.chosen().split();
        couplets.add(new Couplet(number, from, List.of()));
        reasons.add(reason(number, choice, position));
        boolean firstLeadFirst = choice.first().couplets() <= choice.second().couplets();
        List<ConfirmingStatements.Pair> confirms = new ConfirmingStatements(position, split).find(confirming);
        List<Lead> leads = new ArrayList<>();
        for (boolean first : new boolean[] {firstLeadFirst, !firstLeadFirst}) {
            KeyTree next = first ? choice.first() : choice.second();
            Target target = next instanceof KeyTree.Choice more
                    ? new ToCouplet(number(more, position.follow(split, first), OptionalInt.of(number)))
                    : terminal((KeyTree.Stop) next);
            leads.add(new Lead(statements(position, split, first, confirms), target));
        }
        couplets.set(number - 1, new Couplet(number, from, leads));
        return number;
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

    private List<Statement> statements(
            Position position, Split split, boolean first, List<ConfirmingStatements.Pair> confirms) {
        List<Statement> statements = new ArrayList<>();
        boolean whole = problem.matrix.character(split.character()).type() == CharacterType.COUNT;
        Atoms deciding = split.isNumeric()
                ? ConfirmingStatements.interval(split.cut(), first, whole)
                : new States(split.mask(first));
        Optional<DoubtfulLimit> limit = limit(position, split);
        statements.add(new Statement(
                split.character(),
                deciding,
                Role.DECIDING,
                limit.flatMap(l -> l.between(position.low[split.character()], position.high[split.character()])),
                // A rough size must not stand between a reader and a dangerous taxon.
                position.holdsDangerous() ? Optional.empty() : limit.flatMap(DoubtfulLimit::handy)));
        for (ConfirmingStatements.Pair pair : confirms) {
            statements.add(first ? pair.first() : pair.second());
        }
        return statements;
    }

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

    private CoupletReason reason(int number, KeyTree.Choice choice, Position position) {
        TreeSet<Integer> rows = new TreeSet<>();
        TreeSet<Integer> inFirst = new TreeSet<>();
        TreeSet<Integer> duplicated = new TreeSet<>();
        Split split = choice.chosen().split();
        for (int k = 0; k < position.size(); k++) {
            int row = problem.rowOf[position.classes[k]];
            rows.add(row);
            if (position.enters(k, split, true)) {
                inFirst.add(row);
            }
        }
        for (int k = 0; k < position.size(); k++) {
            int row = problem.rowOf[position.classes[k]];
            if (position.enters(k, split, false) && inFirst.contains(row)) {
                duplicated.add(row);
            }
        }
        List<Alternative> alternatives = choice.alternatives().stream()
                .map(a -> new Alternative(
                        a.split().character(),
                        a.gain(),
                        a.duplicated(),
                        cost.misread(position, a.split()),
                        cost.prices(position, a.split())))
                .toList();
        return new CoupletReason(
                number,
                split.character(),
                choice.chosen().gain(),
                cost.misread(position, split),
                List.copyOf(rows),
                List.copyOf(duplicated),
                cost.prices(position, split),
                alternatives);
    }
}
