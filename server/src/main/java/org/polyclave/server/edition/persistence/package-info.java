@NullMarked
package org.polyclave.server.edition.persistence;

import org.jspecify.annotations.NullMarked;
