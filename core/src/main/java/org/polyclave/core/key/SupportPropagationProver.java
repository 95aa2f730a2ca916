package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
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
import org.polyclave.core.matrix.Matrix;

/**
 * Proof by propagating narrowed supports, not by sampling.
 *
 * <p>For each class of specimens the set of what it may still show is carried down the key as a box (one set a
 * character). At a couplet the box is cut along the leads' limits into observations on which the leads cannot differ;
 * each must be accepted by exactly one lead, and each lead that accepts one is followed with the narrowed box. Time grows
 * with the number of (class, path) pairs times the observations at a couplet; memory with the depth. A key in which
 * paths meet again is followed along each path; beyond {@link #MAX_VISITS} the proof says that it is incomplete.
 */
public final class SupportPropagationProver implements KeyProver {
    static final long MAX_VISITS = 50_000_000;
    static final int MAX_FAILURES = 500;

    @Override
    public Proof prove(Matrix matrix, Key key) {
        return new Run(matrix, key).run();
    }

    private static final class Run {
        private final Matrix matrix;
        private final Key key;
        private final Map<Integer, Couplet> byNumber = new HashMap<>();
        private final Set<Failure> failures = new LinkedHashSet<>();
        private final Set<Integer> reachedCouplets = new HashSet<>();
        private final Set<List<Integer>> reachedLeads = new HashSet<>();
        private final Set<Integer> namedRows = new HashSet<>();
        private long visits;

        Run(Matrix matrix, Key key) {
            this.matrix = matrix;
            this.key = key;
        }

        Proof run() {
            if (key.couplets().isEmpty()) {
                namedRows.addAll(key.whole().rows());
            } else {
                checkShape();
                if (failures.stream().noneMatch(f -> f.kind() == Kind.LOOP)) {
                    propagate();
                    checkReached();
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
            for (SpecimenClasses.SpecimenClass specimens : SpecimenClasses.of(matrix)) {
                follow(key.couplets().get(0), specimens.row(), new SupportBox(matrix, specimens));
            }
        }

        private void follow(Couplet couplet, int row, SupportBox box) {
            reachedCouplets.add(couplet.number());
            List<Integer> asked = askedCharacters(couplet);
            boolean single = true;
            for (int character : asked) {
                single &= !box.isInapplicable(character);
            }
            if (visits > MAX_VISITS || !checkObservations(couplet, row, box, asked, single)) {
                return;
            }
            for (int l = 0; l < couplet.leads().size(); l++) {
                Lead lead = couplet.leads().get(l);
                List<SupportBox.Saved> saved = new ArrayList<>();
                if (narrow(box, lead, saved)) {
                    arrive(couplet, l, row, box);
                }
                box.restore(saved);
            }
        }

        private void arrive(Couplet couplet, int l, int row, SupportBox box) {
            Lead lead = couplet.leads().get(l);
            if (lead.to() instanceof ToCouplet to) {
                Couplet next = byNumber.get(to.number());
                if (next != null) {
                    follow(next, row, box);
                }
                return;
            }
            reachedLeads.add(List.of(couplet.number(), l));
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
        private boolean checkObservations(
                Couplet couplet, int row, SupportBox box, List<Integer> asked, boolean single) {
            List<List<Atoms>> choices = new ArrayList<>();
            for (int character : asked) {
                choices.add(box.observations(character, couplet));
            }
            int[] at = new int[asked.size()];
            while (true) {
                if (++visits > MAX_VISITS) {
                    return false;
                }
                checkOne(couplet, row, asked, choices, at, single);
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
                            && !reachedLeads.contains(List.of(couplet.number(), l))) {
                        fail(Failure.lead(Kind.UNREACHED_TERMINAL, couplet.number(), l));
                    }
                }
            }
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
