/** Picture, over HTTP. */
@NullMarked
package org.polyclave.server.picture.web;

import org.jspecify.annotations.NullMarked;
