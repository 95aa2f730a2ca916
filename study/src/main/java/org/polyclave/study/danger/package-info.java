/** What each danger of a study lacks before an edition can rule it out. */
@NullMarked
package org.polyclave.study.danger;

import org.jspecify.annotations.NullMarked;
