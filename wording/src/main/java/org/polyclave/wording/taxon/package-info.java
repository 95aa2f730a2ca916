/** Taxa in words. */
@NullMarked
package org.polyclave.wording.taxon;

import org.jspecify.annotations.NullMarked;
