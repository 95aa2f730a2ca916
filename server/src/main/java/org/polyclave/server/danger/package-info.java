/** What keeps dangers from being ruled out, and confirming cells. */
@NullMarked
package org.polyclave.server.danger;

import org.jspecify.annotations.NullMarked;
