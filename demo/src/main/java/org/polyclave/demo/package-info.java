@NullMarked
package org.polyclave.demo;

import org.jspecify.annotations.NullMarked;
