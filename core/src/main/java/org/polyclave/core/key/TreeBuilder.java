package org.polyclave.core.key;

import java.util.Optional;

/** Builds a key tree from a position; empty when the budget ran out before any tree was complete. */
interface TreeBuilder {
    Optional<KeyTree> build(Position start);
}
