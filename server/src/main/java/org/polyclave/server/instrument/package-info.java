/** Instruments that send readings and pictures by themselves; the demo's are simulated. */
@NullMarked
package org.polyclave.server.instrument;

import org.jspecify.annotations.NullMarked;
