@NullMarked
package org.polyclave.server.identify.web;

import org.jspecify.annotations.NullMarked;
