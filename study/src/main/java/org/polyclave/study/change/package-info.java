/** Changes of many objects of a study at once, and the difference between two studies. */
@NullMarked
package org.polyclave.study.change;

import org.jspecify.annotations.NullMarked;
