/** Pairs of rows compared under viewing conditions. */
@NullMarked
package org.polyclave.study.comparison;

import org.jspecify.annotations.NullMarked;
