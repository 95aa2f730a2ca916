@NullMarked
package org.polyclave.formats.notation;

import org.jspecify.annotations.NullMarked;
