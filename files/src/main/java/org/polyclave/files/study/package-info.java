/** The study file: a whole study without loss. */
@NullMarked
package org.polyclave.files.study;

import org.jspecify.annotations.NullMarked;
