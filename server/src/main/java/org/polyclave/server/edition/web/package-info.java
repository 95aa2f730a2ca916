@NullMarked
package org.polyclave.server.edition.web;

import org.jspecify.annotations.NullMarked;
