/** NEXUS matrices, read and written. */
@NullMarked
package org.polyclave.files.nexus;

import org.jspecify.annotations.NullMarked;
