/** Simulated specimens of the made-up studies: their sizes, their pictures, and what was read of them. */
@NullMarked
package org.polyclave.demo.specimen;

import org.jspecify.annotations.NullMarked;
