package org.polyclave.server.job;

/** Asked every few hours to forget what nothing needs any more. */
public interface Retention {
    void forget();
}
