/** How studies change: one log for undo, conflicts and history; snapshots. */
@NullMarked
package org.polyclave.server.history;

import org.jspecify.annotations.NullMarked;
