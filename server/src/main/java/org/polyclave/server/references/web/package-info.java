/** References, over HTTP. */
@NullMarked
package org.polyclave.server.references.web;

import org.jspecify.annotations.NullMarked;
