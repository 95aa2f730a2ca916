@NullMarked
package org.polyclave.server.platform;

import org.jspecify.annotations.NullMarked;
