/** CSV, TSV and XLSX files as sheets of cells, before anything is understood. */
@NullMarked
package org.polyclave.files.sheet;

import org.jspecify.annotations.NullMarked;
