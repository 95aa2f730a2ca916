package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.polyclave.core.key.Key.Couplet;
import org.polyclave.core.key.Key.Lead;
import org.polyclave.core.key.Key.ToCouplet;
import org.polyclave.core.key.Proof.Failure;
import org.polyclave.core.key.Proof.Kind;

/** Faults that a key has whatever the matrix: numbers, references back, loops, couplets that lead nowhere. */
final class KeyShape {
    private final Key key;
    private final Map<Integer, Couplet> byNumber = new HashMap<>();
    private final Failures failures;

    KeyShape(Key key, Failures failures) {
        this.key = key;
        this.failures = failures;
    }

    /** The couplet of a number; the last one where several have it. */
    Optional<Couplet> couplet(int number) {
        return Optional.ofNullable(byNumber.get(number));
    }

    void check() {
        for (Couplet couplet : key.couplets()) {
            if (byNumber.put(couplet.number(), couplet) != null) {
                failures.add(Failure.at(Kind.DUPLICATE_NUMBER, couplet.number()));
            }
            if (couplet.leads().size() < 2) {
                failures.add(Failure.at(Kind.TOO_FEW_LEADS, couplet.number()));
            }
        }
        for (Couplet couplet : key.couplets()) {
            for (int l = 0; l < couplet.leads().size(); l++) {
                if (couplet.leads().get(l).to() instanceof ToCouplet to && !byNumber.containsKey(to.number())) {
                    failures.add(Failure.lead(Kind.DANGLING_TARGET, couplet.number(), l));
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
            failures.add(Failure.at(Kind.WRONG_BACK_REFERENCE, couplet.number()));
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
                    failures.add(Failure.lead(Kind.LOOP, top[0], l));
                } else if (!done.contains(to.number()) && byNumber.containsKey(to.number())) {
                    onPath.add(to.number());
                    stack.add(new int[] {to.number(), 0});
                }
            }
        }
    }
}
