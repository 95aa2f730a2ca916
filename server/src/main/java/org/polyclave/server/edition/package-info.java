@NullMarked
package org.polyclave.server.edition;

import org.jspecify.annotations.NullMarked;
