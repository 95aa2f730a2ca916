package org.polyclave.core.key;

import java.util.List;

/** A key before it is numbered and worded. */
sealed interface KeyTree {
    /** @param alternatives other splits of the same position, best first */
    record Choice(Candidate chosen, List<Candidate> alternatives, KeyTree first, KeyTree second) implements KeyTree {}

    /** The classes still in play where nothing separates two targets. */
    record Stop(int[] classes) implements KeyTree {}
}
