/** History, over HTTP. */
@NullMarked
package org.polyclave.server.history.web;

import org.jspecify.annotations.NullMarked;
