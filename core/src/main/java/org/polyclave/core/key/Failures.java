package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.polyclave.core.key.Proof.Failure;
import org.polyclave.core.key.Proof.Kind;

/** What a proof has found so far: each failure once, and no more than anybody reads. */
final class Failures {
    static final int MOST = 500;

    private final Set<Failure> found = new LinkedHashSet<>();

    void add(Failure failure) {
        if (found.size() < MOST) {
            found.add(failure);
        }
    }

    boolean hold(Kind kind) {
        return found.stream().anyMatch(f -> f.kind() == kind);
    }

    List<Failure> inReadingOrder() {
        List<Failure> sorted = new ArrayList<>(found);
        sorted.sort((a, b) -> Integer.compare(a.couplet().orElse(0), b.couplet().orElse(0)));
        return sorted;
    }
}
