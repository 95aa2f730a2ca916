/** What is wrong where a rule does not hold. */
@NullMarked
package org.polyclave.wording.rule;

import org.jspecify.annotations.NullMarked;
