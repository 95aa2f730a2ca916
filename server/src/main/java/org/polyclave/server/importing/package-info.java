@NullMarked
package org.polyclave.server.importing;

import org.jspecify.annotations.NullMarked;
