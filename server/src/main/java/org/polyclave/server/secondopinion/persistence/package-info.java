/** Secondopinion, in the database. */
@NullMarked
package org.polyclave.server.secondopinion.persistence;

import org.jspecify.annotations.NullMarked;
