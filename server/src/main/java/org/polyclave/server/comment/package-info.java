/** What members say to each other about cells; it is not a part of the matrix. */
@NullMarked
package org.polyclave.server.comment;

import org.jspecify.annotations.NullMarked;
