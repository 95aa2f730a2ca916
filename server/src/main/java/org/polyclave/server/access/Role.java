package org.polyclave.server.access;

/** What a member of a study may do; each may do all that those before it may. */
public enum Role {
    VIEWER,
    SCORER,
    EDITOR,
    OWNER;

    public boolean reaches(Role needed) {
        return compareTo(needed) >= 0;
    }
}
