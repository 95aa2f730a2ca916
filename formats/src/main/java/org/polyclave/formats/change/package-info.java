/** Changes of studies as pure functions, and what differs between two versions of a study. */
@NullMarked
package org.polyclave.formats.change;

import org.jspecify.annotations.NullMarked;
