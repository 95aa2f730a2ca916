/** Checks, in the database. */
@NullMarked
package org.polyclave.server.checks.persistence;

import org.jspecify.annotations.NullMarked;
