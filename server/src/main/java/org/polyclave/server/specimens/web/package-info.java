/** Specimens, over HTTP. */
@NullMarked
package org.polyclave.server.specimens.web;

import org.jspecify.annotations.NullMarked;
