/** Comments in the database. */
@NullMarked
package org.polyclave.server.comment.persistence;

import org.jspecify.annotations.NullMarked;
