@NullMarked
package org.polyclave.formats.library;

import org.jspecify.annotations.NullMarked;
