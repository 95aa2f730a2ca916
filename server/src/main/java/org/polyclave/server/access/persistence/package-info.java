/** Studies by name and who shares them. */
@NullMarked
package org.polyclave.server.access.persistence;

import org.jspecify.annotations.NullMarked;
