/** NEXUS files (Maddison, Swofford and Maddison 1997, Systematic Biology 46: 590-621). */
@NullMarked
package org.polyclave.formats.nexus;

import org.jspecify.annotations.NullMarked;
