/** How far a study is, and what would help it most now. */
@NullMarked
package org.polyclave.study.advice;

import org.jspecify.annotations.NullMarked;
