/** Second scorers: assignments, blind scores, agreement, settling. */
@NullMarked
package org.polyclave.server.secondopinion;

import org.jspecify.annotations.NullMarked;
