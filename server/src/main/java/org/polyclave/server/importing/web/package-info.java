@NullMarked
package org.polyclave.server.importing.web;

import org.jspecify.annotations.NullMarked;
