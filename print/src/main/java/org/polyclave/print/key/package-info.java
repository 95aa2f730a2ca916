/** Keys as text, Markdown and HTML. */
@NullMarked
package org.polyclave.print.key;

import org.jspecify.annotations.NullMarked;
