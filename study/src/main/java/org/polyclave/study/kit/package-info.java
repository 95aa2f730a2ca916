/** What has to be at hand to use a key. */
@NullMarked
package org.polyclave.study.kit;

import org.jspecify.annotations.NullMarked;
