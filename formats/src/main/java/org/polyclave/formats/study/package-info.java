@NullMarked
package org.polyclave.formats.study;

import org.jspecify.annotations.NullMarked;
