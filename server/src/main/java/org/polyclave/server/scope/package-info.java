/** What a study is about, and the taxa near but outside. */
@NullMarked
package org.polyclave.server.scope;

import org.jspecify.annotations.NullMarked;
