/** How couplet keys are read: what was examined on the way as evidence, and a name held against its whole description. */
package org.polyclave.core.reading;
