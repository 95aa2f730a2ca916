/** From a study to the matrix that the core computes with: targets and names, inheritance, hazards, contexts. */
@NullMarked
package org.polyclave.study.compile;

import org.jspecify.annotations.NullMarked;
