@NullMarked
package org.polyclave.server.check;

import org.jspecify.annotations.NullMarked;
