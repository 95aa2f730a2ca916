/** Scores and what is said about cells. */
@NullMarked
package org.polyclave.server.matrix;

import org.jspecify.annotations.NullMarked;
