package org.polyclave.core.matrix;

/** Who looks: how often states are misread depends on it. */
public enum Observer {
    /** Somebody who knows the group, or was shown the character. */
    TRAINED,
    /** Somebody who meets the group for the first time. */
    NOVICE
}
