@NullMarked
package org.polyclave.formats.agreement;

import org.jspecify.annotations.NullMarked;
