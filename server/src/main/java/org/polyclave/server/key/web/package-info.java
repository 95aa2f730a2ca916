@NullMarked
package org.polyclave.server.key.web;

import org.jspecify.annotations.NullMarked;
