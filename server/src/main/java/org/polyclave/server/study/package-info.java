/** Studies as their members see them: list, view, progress, next step. */
@NullMarked
package org.polyclave.server.study;

import org.jspecify.annotations.NullMarked;
