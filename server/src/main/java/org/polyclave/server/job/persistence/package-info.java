@NullMarked
package org.polyclave.server.job.persistence;

import org.jspecify.annotations.NullMarked;
