package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
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
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;

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

    @Override
    public Proof prove(Matrix matrix, Key key) {
        return new Run(matrix, key).run();
    }

    private static final class Run {
        private final Matrix matrix;
        private final Key key;
        private final Failures failures = new Failures();
        private final KeyShape shape;
        private final Arrivals arrivals;
        private final Set<Integer> namedRows = new HashSet<>();
        private long visits;

        Run(Matrix matrix, Key key) {
            this.matrix = matrix;
            this.key = key;
            shape = new KeyShape(key, failures);
            arrivals = new Arrivals(matrix, key, shape, failures);
        }

        Proof run() {
            if (key.couplets().isEmpty()) {
                namedRows.addAll(key.whole().rows());
                arrivals.checkWhole();
            } else {
                shape.check();
                if (!failures.hold(Kind.LOOP)) {
                    propagate();
                    arrivals.check(visits <= MAX_VISITS);
                }
                collectNames();
            }
            for (int row = 0; row < matrix.rowCount(); row++) {
                if (!namedRows.contains(row)) {
                    failures.add(Failure.row(Kind.ROW_MISSING, row));
                }
            }
            return new Proof(failures.inReadingOrder(), visits, visits <= MAX_VISITS);
        }

        private void propagate() {
            for (int row = 0; row < matrix.rowCount(); row++) {
                follow(key.couplets().get(0), new SupportBox(matrix, row));
            }
        }

        private void follow(Couplet couplet, SupportBox box) {
            arrivals.reach(couplet);
            Optional<ControllingCondition> open = firstOpenCondition(couplet, box);
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

        private static Optional<ControllingCondition> firstOpenCondition(Couplet couplet, SupportBox box) {
            for (Lead lead : couplet.leads()) {
                for (Statement statement : lead.statements()) {
                    Optional<ControllingCondition> open = box.firstOpenCondition(statement.character());
                    if (open.isPresent()) {
                        return open;
                    }
                }
            }
            return Optional.empty();
        }

        /** Those that meet a condition, and those that do not. */
        private void followDivided(Couplet couplet, SupportBox box, ControllingCondition condition) {
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
                            failures.add(at(Kind.NOT_SUFFICIENT, couplet, m, box, statement.character()));
                        }
                    } else if (statement.role() == Key.Role.TENDENCY && shown && box.isKnown(statement.character())) {
                        arrivals.compare(couplet, m, statement, box, m == l);
                    }
                }
            }
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
                shape.couplet(to.number()).ifPresent(next -> follow(next, box));
                return;
            }
            int row = box.row();
            arrivals.end(couplet, l, box);
            if (!((ToRows) lead.to()).rows().contains(row)) {
                List<Integer> asked = askedCharacters(couplet);
                int character = asked.isEmpty() ? -1 : asked.get(0);
                failures.add(new Failure(
                        Kind.WRONG_NAME,
                        OptionalInt.of(couplet.number()),
                        OptionalInt.of(l + 1),
                        OptionalInt.of(row),
                        character < 0 ? OptionalInt.empty() : OptionalInt.of(character),
                        character < 0 ? Optional.empty() : Optional.of(box.atoms(character))));
            }
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
                failures.add(new Failure(
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
