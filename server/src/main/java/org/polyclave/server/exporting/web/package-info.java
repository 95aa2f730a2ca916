/** Exporting, over HTTP. */
@NullMarked
package org.polyclave.server.exporting.web;

import org.jspecify.annotations.NullMarked;
