@NullMarked
package org.polyclave.server.apart;

import org.jspecify.annotations.NullMarked;
