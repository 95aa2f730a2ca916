@NullMarked
package org.polyclave.server.key;

import org.jspecify.annotations.NullMarked;
