/** What readers learn on the cover of an edition, in words. */
@NullMarked
package org.polyclave.wording.cover;

import org.jspecify.annotations.NullMarked;
