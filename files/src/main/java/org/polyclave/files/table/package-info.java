/** Sheets understood as matrices, specimens or readings, and matrices written as tables. */
@NullMarked
package org.polyclave.files.table;

import org.jspecify.annotations.NullMarked;
