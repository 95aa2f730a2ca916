/** Characters with their states, and ready ones to copy. */
@NullMarked
package org.polyclave.server.characters;

import org.jspecify.annotations.NullMarked;
