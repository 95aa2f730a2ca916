@NullMarked
package org.polyclave.server.study.web;

import org.jspecify.annotations.NullMarked;
