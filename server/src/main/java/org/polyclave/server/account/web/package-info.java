@NullMarked
package org.polyclave.server.account.web;

import org.jspecify.annotations.NullMarked;
