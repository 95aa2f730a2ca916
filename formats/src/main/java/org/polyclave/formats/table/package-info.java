@NullMarked
package org.polyclave.formats.table;

import org.jspecify.annotations.NullMarked;
