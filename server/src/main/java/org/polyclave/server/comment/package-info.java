/** What members say to each other about cells; it is no part of the matrix. */
@NullMarked
package org.polyclave.server.comment;

import org.jspecify.annotations.NullMarked;
