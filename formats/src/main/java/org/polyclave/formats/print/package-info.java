/** What is printed: labels, and pages as PDF. */
@NullMarked
package org.polyclave.formats.print;

import org.jspecify.annotations.NullMarked;
