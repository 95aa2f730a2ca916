@NullMarked
package org.polyclave.formats.key;

import org.jspecify.annotations.NullMarked;
