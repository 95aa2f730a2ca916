/** Rows, characters, scores and small objects of studies; pictures by what is in them. */
@NullMarked
package org.polyclave.server.store.persistence;

import org.jspecify.annotations.NullMarked;
