/** Dangers that readers could not rule out, and the cells that somebody has to stand for. */
@NullMarked
package org.polyclave.server.danger;

import org.jspecify.annotations.NullMarked;
