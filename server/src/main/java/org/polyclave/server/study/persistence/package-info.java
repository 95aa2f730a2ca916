@NullMarked
package org.polyclave.server.study.persistence;

import org.jspecify.annotations.NullMarked;
