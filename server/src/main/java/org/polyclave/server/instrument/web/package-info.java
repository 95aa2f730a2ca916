/** HTTP of instruments. */
@NullMarked
package org.polyclave.server.instrument.web;

import org.jspecify.annotations.NullMarked;
