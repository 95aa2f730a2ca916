/** Sharing over HTTP. */
@NullMarked
package org.polyclave.server.access.web;

import org.jspecify.annotations.NullMarked;
