/** What a finding of the checks says. */
@NullMarked
package org.polyclave.wording.finding;

import org.jspecify.annotations.NullMarked;
