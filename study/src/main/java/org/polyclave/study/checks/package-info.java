/** What may be slips, gaps or contradictions in a study. */
@NullMarked
package org.polyclave.study.checks;

import org.jspecify.annotations.NullMarked;
