@NullMarked
package org.polyclave.server.apart.web;

import org.jspecify.annotations.NullMarked;
