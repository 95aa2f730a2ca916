@NullMarked
package org.polyclave.server.account;

import org.jspecify.annotations.NullMarked;
