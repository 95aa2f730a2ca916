@NullMarked
package org.polyclave.server.study;

import org.jspecify.annotations.NullMarked;
