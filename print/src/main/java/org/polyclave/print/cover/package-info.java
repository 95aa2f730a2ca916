/** The cover of an edition, as readers get it before any script. */
@NullMarked
package org.polyclave.print.cover;

import org.jspecify.annotations.NullMarked;
