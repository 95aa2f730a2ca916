/** Specimens, their places and labels. */
@NullMarked
package org.polyclave.server.specimens;

import org.jspecify.annotations.NullMarked;
