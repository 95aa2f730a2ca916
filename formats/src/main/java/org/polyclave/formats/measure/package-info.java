/** Readings of a study's specimens: how they are taken from texts and pictures, and what they come to in its cells. */
@NullMarked
package org.polyclave.formats.measure;

import org.jspecify.annotations.NullMarked;
