/** Pictures of studies: upload, what is said about them, sending them. */
@NullMarked
package org.polyclave.server.picture;

import org.jspecify.annotations.NullMarked;
