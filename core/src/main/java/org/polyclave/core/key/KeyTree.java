package org.polyclave.core.key;

import java.util.List;

/** A key before it is numbered and worded. */
sealed interface KeyTree {
    int couplets();

    /** Most couplets that are passed on the way to an end. */
    int longestPath();

    /** @param alternatives other splits of the same position, best first */
    record Choice(Candidate chosen, List<Candidate> alternatives, KeyTree first, KeyTree second) implements KeyTree {
        @Override
        public int couplets() {
            return 1 + first.couplets() + second.couplets();
        }

        @Override
        public int longestPath() {
            return 1 + Math.max(first.longestPath(), second.longestPath());
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
    }
}
