/** History, in the database. */
@NullMarked
package org.polyclave.server.history.persistence;

import org.jspecify.annotations.NullMarked;
