package org.polyclave.core.key;

import java.util.Arrays;

/** Readers with specimens of all classes at a place of a key: also those who have gone astray, and should not be there. */
final class Readers {
    /** Fewer than this share is nobody. */
    private static final double NOBODY = 1e-15;

    private final KeyProblem problem;
    private final Readings readings;
    /** By class, of all readers. */
    private final double[] share;

    private Readers(KeyProblem problem, Readings readings, double[] share) {
        this.problem = problem;
        this.readings = readings;
        this.share = share;
    }

    static Readers start(KeyProblem problem, Readings readings) {
        return new Readers(problem, readings, problem.mass);
    }

    Readers follow(Position position, Split split, boolean first) {
        double[] next = new double[share.length];
        for (int i = 0; i < share.length; i++) {
            next[i] = share[i] < NOBODY ? 0 : share[i] * readings.share(position, split, first, i);
        }
        return new Readers(problem, readings, next);
    }

    double total() {
        return Arrays.stream(share).sum();
    }

    /** What becomes of these readers where the key stops. */
    KeyRisk at(KeyTree.Stop stop) {
        double right = 0;
        double wrong = 0;
        double dangerous = 0;
        boolean warned = holdsDanger(stop);
        boolean[] named = named(stop);
        for (int i = 0; i < share.length; i++) {
            if (named[problem.nameOf[i]]) {
                right += share[i];
            } else {
                wrong += share[i];
                dangerous += !warned && problem.isDangerous(i) ? share[i] : 0;
            }
        }
        return new KeyRisk(right, wrong, dangerous, 0);
    }

    private boolean[] named(KeyTree.Stop stop) {
        boolean[] named = new boolean[problem.names];
        for (int specimens : stop.classes()) {
            named[problem.nameOf[specimens]] = true;
        }
        return named;
    }

    private boolean holdsDanger(KeyTree.Stop stop) {
        for (int specimens : stop.classes()) {
            if (problem.isDangerous(specimens)) {
                return true;
            }
        }
        return false;
    }
}
