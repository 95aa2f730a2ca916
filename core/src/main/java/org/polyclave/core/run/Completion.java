package org.polyclave.core.run;

/** How complete a computed result is. */
public enum Completion {
    /** Proven best over the stated search space. */
    OPTIMAL,
    /** Good, with a known distance to a lower bound. */
    BOUNDED,
    /** The best found when the budget of nodes ran out. */
    BUDGET_EXHAUSTED,
    /** The best found when somebody asked to stop. */
    CANCELLED
}
