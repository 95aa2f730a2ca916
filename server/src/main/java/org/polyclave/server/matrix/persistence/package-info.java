/** Matrix, in the database. */
@NullMarked
package org.polyclave.server.matrix.persistence;

import org.jspecify.annotations.NullMarked;
