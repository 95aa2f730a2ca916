/** Operations, over HTTP. */
@NullMarked
package org.polyclave.server.operations.web;

import org.jspecify.annotations.NullMarked;
