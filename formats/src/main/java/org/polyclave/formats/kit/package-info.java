/** What readers of a key bring with them. */
@NullMarked
package org.polyclave.formats.kit;

import org.jspecify.annotations.NullMarked;
