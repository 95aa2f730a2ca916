/** Characters, over HTTP. */
@NullMarked
package org.polyclave.server.characters.web;

import org.jspecify.annotations.NullMarked;
