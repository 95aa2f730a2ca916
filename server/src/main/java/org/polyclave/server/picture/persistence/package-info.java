@NullMarked
package org.polyclave.server.picture.persistence;

import org.jspecify.annotations.NullMarked;
