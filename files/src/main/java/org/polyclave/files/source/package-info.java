/** What every reader of foreign files shares: the decoding of text, and what a file was understood as. */
@NullMarked
package org.polyclave.files.source;

import org.jspecify.annotations.NullMarked;
