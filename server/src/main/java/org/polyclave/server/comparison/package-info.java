/** What separates rows: the map of pairs, cards, calendar, recognitions. */
@NullMarked
package org.polyclave.server.comparison;

import org.jspecify.annotations.NullMarked;
