/** Changes of many objects at once. */
@NullMarked
package org.polyclave.server.operations;

import org.jspecify.annotations.NullMarked;
