/** Templates of pages. */
@NullMarked
package org.polyclave.print.page;

import org.jspecify.annotations.NullMarked;
