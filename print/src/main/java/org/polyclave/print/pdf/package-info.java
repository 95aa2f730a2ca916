/** HTML as PDF, with the fonts of the product. */
@NullMarked
package org.polyclave.print.pdf;

import org.jspecify.annotations.NullMarked;
