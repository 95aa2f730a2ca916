@NullMarked
package org.polyclave.server.check.web;

import org.jspecify.annotations.NullMarked;
