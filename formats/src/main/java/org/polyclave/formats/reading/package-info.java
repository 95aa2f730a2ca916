/** Specimens' readings as tables, and what they come to. */
@NullMarked
package org.polyclave.formats.reading;

import org.jspecify.annotations.NullMarked;
