/** Secondopinion, over HTTP. */
@NullMarked
package org.polyclave.server.secondopinion.web;

import org.jspecify.annotations.NullMarked;
