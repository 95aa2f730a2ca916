/** Whole studies, read, kept compiled and written; pictures by what is in them. */
@NullMarked
package org.polyclave.server.store;

import org.jspecify.annotations.NullMarked;
