/** How far scorers agree, character by character. */
@NullMarked
package org.polyclave.study.agreement;

import org.jspecify.annotations.NullMarked;
