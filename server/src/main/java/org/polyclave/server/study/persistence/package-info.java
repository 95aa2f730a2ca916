/** The list of studies, and gauges as they were worked out last. */
@NullMarked
package org.polyclave.server.study.persistence;

import org.jspecify.annotations.NullMarked;
