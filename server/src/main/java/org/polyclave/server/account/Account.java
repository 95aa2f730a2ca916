package org.polyclave.server.account;

import java.io.Serializable;

/** Somebody who may sign in. */
public record Account(long id, String name, String displayName, boolean administrator) implements Serializable {}
