/** Scope, over HTTP. */
@NullMarked
package org.polyclave.server.scope.web;

import org.jspecify.annotations.NullMarked;
