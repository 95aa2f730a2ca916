/** How values are typed and printed: cells, ranges, months, numbers with units, rules of thumb, coordinates. */
@NullMarked
package org.polyclave.study.notation;

import org.jspecify.annotations.NullMarked;
