/** What tells rows apart, in words: contrast cards, recognitions, calendars, what to score next. */
@NullMarked
package org.polyclave.formats.apart;

import org.jspecify.annotations.NullMarked;
