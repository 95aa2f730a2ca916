@NullMarked
package org.polyclave.server.library.web;

import org.jspecify.annotations.NullMarked;
