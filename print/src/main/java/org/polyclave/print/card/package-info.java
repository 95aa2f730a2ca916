/** Contrast cards and plates as pages. */
@NullMarked
package org.polyclave.print.card;

import org.jspecify.annotations.NullMarked;
