/** Readings: typed, marked on pictures, imported, streamed; what they come to. */
@NullMarked
package org.polyclave.server.measuring;

import org.jspecify.annotations.NullMarked;
