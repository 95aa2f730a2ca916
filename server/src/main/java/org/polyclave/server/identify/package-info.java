@NullMarked
package org.polyclave.server.identify;

import org.jspecify.annotations.NullMarked;
