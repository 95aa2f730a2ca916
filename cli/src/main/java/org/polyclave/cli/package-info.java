/** The commands that need no server. */
package org.polyclave.cli;
