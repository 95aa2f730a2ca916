@NullMarked
package org.polyclave.server.job;

import org.jspecify.annotations.NullMarked;
