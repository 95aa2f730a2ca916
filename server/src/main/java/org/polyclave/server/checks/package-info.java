/** Findings in the matrix, and which of them are accepted. */
@NullMarked
package org.polyclave.server.checks;

import org.jspecify.annotations.NullMarked;
