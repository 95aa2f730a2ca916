package org.polyclave.server.account.persistence;

public record AccountRow(long id, String name, String displayName, String passwordHash, boolean administrator) {}
