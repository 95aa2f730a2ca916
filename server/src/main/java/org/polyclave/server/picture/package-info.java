@NullMarked
package org.polyclave.server.picture;

import org.jspecify.annotations.NullMarked;
