/** Taxa, over HTTP. */
@NullMarked
package org.polyclave.server.taxa.web;

import org.jspecify.annotations.NullMarked;
