/** Matrices as files of any format: one way in, one way out, and what a format could not hold. */
@NullMarked
package org.polyclave.files.convert;

import org.jspecify.annotations.NullMarked;
