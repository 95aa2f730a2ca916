/** What keeps readers from ruling a danger out, and which cells would have to be confirmed so that they can. */
@NullMarked
package org.polyclave.formats.danger;

import org.jspecify.annotations.NullMarked;
