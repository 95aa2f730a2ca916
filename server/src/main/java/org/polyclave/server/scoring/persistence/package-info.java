@NullMarked
package org.polyclave.server.scoring.persistence;

import org.jspecify.annotations.NullMarked;
