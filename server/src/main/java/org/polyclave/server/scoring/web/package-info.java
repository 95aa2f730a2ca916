@NullMarked
package org.polyclave.server.scoring.web;

import org.jspecify.annotations.NullMarked;
