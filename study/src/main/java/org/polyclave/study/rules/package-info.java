/** What must hold within a study whoever writes to it, and how large it may be. */
@NullMarked
package org.polyclave.study.rules;

import org.jspecify.annotations.NullMarked;
