/** Taxa, and their sexes and stages. */
@NullMarked
package org.polyclave.server.taxa;

import org.jspecify.annotations.NullMarked;
