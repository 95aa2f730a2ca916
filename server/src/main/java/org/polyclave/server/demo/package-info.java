@NullMarked
package org.polyclave.server.demo;

import org.jspecify.annotations.NullMarked;
