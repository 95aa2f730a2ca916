/** Snapshots in the database. */
@NullMarked
package org.polyclave.server.snapshot.persistence;

import org.jspecify.annotations.NullMarked;
