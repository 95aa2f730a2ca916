/** Sentences by key: ICU messages, one file a subject and language. */
@NullMarked
package org.polyclave.wording.catalogue;

import org.jspecify.annotations.NullMarked;
