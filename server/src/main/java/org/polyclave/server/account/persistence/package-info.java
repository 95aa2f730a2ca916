@NullMarked
package org.polyclave.server.account.persistence;

import org.jspecify.annotations.NullMarked;
