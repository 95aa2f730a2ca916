/** Named states of a study, and what differs between them. */
@NullMarked
package org.polyclave.server.snapshot;

import org.jspecify.annotations.NullMarked;
