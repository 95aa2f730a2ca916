/** Keys in words: leads, statements, terminals, hazards. */
@NullMarked
package org.polyclave.wording.key;

import org.jspecify.annotations.NullMarked;
