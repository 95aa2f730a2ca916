/** Dangers over HTTP. */
@NullMarked
package org.polyclave.server.danger.web;

import org.jspecify.annotations.NullMarked;
