/** The clause in which a lead, a card or an answer tells what is seen of a character. */
@NullMarked
package org.polyclave.wording.lead;

import org.jspecify.annotations.NullMarked;
