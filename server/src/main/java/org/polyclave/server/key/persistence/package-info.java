/** Named keys, in the database. */
@NullMarked
package org.polyclave.server.key.persistence;

import org.jspecify.annotations.NullMarked;
