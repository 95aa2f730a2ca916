/** Snapshots over HTTP. */
@NullMarked
package org.polyclave.server.snapshot.web;

import org.jspecify.annotations.NullMarked;
