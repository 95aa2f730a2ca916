/** Checks, over HTTP. */
@NullMarked
package org.polyclave.server.checks.web;

import org.jspecify.annotations.NullMarked;
