@NullMarked
package org.polyclave.server.scoring;

import org.jspecify.annotations.NullMarked;
