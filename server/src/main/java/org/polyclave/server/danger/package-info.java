/** Dangers that readers could not rule out, and the cells that somebody has to vouch for. */
@NullMarked
package org.polyclave.server.danger;

import org.jspecify.annotations.NullMarked;
