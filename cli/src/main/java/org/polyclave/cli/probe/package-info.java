/** Tries a running installation as a hostile client would. */
@NullMarked
package org.polyclave.cli.probe;

import org.jspecify.annotations.NullMarked;
