/** Ready characters to be copied into a study; kept as a study file. */
@NullMarked
package org.polyclave.files.library;

import org.jspecify.annotations.NullMarked;
