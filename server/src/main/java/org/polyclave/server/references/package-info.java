/** Glossary, references and claims. */
@NullMarked
package org.polyclave.server.references;

import org.jspecify.annotations.NullMarked;
