@NullMarked
package org.polyclave.formats.picture;

import org.jspecify.annotations.NullMarked;
