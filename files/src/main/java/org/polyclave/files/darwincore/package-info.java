/** Taxa headed by Darwin Core terms. */
@NullMarked
package org.polyclave.files.darwincore;

import org.jspecify.annotations.NullMarked;
