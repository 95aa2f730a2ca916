/** Who may do what in a study: members, their roles, and how a handler opens a study. */
@NullMarked
package org.polyclave.server.access;

import org.jspecify.annotations.NullMarked;
