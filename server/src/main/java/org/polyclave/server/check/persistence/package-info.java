@NullMarked
package org.polyclave.server.check.persistence;

import org.jspecify.annotations.NullMarked;
