/** Labels of specimens as sheets. */
@NullMarked
package org.polyclave.print.label;

import org.jspecify.annotations.NullMarked;
