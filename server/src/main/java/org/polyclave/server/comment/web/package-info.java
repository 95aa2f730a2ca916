@NullMarked
package org.polyclave.server.comment.web;

import org.jspecify.annotations.NullMarked;
