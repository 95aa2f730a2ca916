/** Measuring, over HTTP. */
@NullMarked
package org.polyclave.server.measuring.web;

import org.jspecify.annotations.NullMarked;
