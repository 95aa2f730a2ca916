package org.polyclave.core.key;

import java.util.List;

/** A key before it is numbered and worded. */
sealed interface KeyTree {
    int couplets();

    /** Most couplets that are passed on the way to an end. */
    int longestPath();

    /** Leads at which it stops. */
    int ends();

    /**
     * A choice of two; a couplet of more is a chain of them.
     *
     * @param alternatives other splits of the same position, best first
     * @param goesOn whether it divides a lead of the choice before it further, in the same couplet
     */
    record Choice(Candidate chosen, List<Candidate> alternatives, KeyTree first, KeyTree second, boolean goesOn)
            implements KeyTree {
        @Override
        public int couplets() {
            return own() + first.couplets() + second.couplets();
        }

        @Override
        public int longestPath() {
            return own() + Math.max(first.longestPath(), second.longestPath());
        }

        @Override
        public int ends() {
            return first.ends() + second.ends();
        }

        private int own() {
            return goesOn ? 0 : 1;
        }
    }

    /** The classes still in play where nothing separates two targets. */
    record Stop(int[] classes) implements KeyTree {
        @Override
        public int couplets() {
            return 0;
        }

        @Override
        public int longestPath() {
            return 0;
        }

        @Override
        public int ends() {
            return 1;
        }
    }
}
