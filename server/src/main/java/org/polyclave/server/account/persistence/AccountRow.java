package org.polyclave.server.account.persistence;

import org.jspecify.annotations.Nullable;

/** @param passwordHash null until whoever was invited has chosen a password */
public record AccountRow(
        long id,
        String name,
        String displayName,
        @Nullable String passwordHash,
        boolean administrator,
        boolean active) {}
