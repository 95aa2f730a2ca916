/** The key file, read and written. */
@NullMarked
package org.polyclave.files.key;

import org.jspecify.annotations.NullMarked;
