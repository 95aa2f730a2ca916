/** From typed, marked and imported readings to evidence of cells. */
@NullMarked
package org.polyclave.study.measuring;

import org.jspecify.annotations.NullMarked;
