/** Comparison, over HTTP. */
@NullMarked
package org.polyclave.server.comparison.web;

import org.jspecify.annotations.NullMarked;
