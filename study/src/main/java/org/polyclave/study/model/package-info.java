/** The study as people know it: taxa, characters, states, scores, specimens, readings, pictures, sources. */
@NullMarked
package org.polyclave.study.model;

import org.jspecify.annotations.NullMarked;
