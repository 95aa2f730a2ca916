@NullMarked
package org.polyclave.server.importing.persistence;

import org.jspecify.annotations.NullMarked;
