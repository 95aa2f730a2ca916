/** Matrix, over HTTP. */
@NullMarked
package org.polyclave.server.matrix.web;

import org.jspecify.annotations.NullMarked;
