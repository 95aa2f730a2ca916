@NullMarked
package org.polyclave.formats.check;

import org.jspecify.annotations.NullMarked;
