package org.polyclave.cli;

/** Forms in which a command prints what it found. */
enum ListFormat {
    TEXT,
    JSON
}
