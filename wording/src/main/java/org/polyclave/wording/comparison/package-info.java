/** What separates rows, in words: contrast cards, recognitions, the calendar of pairs. */
@NullMarked
package org.polyclave.wording.comparison;

import org.jspecify.annotations.NullMarked;
