/** Picture files, checked by their content and cleaned. */
@NullMarked
package org.polyclave.files.picture;

import org.jspecify.annotations.NullMarked;
