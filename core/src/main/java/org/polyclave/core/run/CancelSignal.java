package org.polyclave.core.run;

/** Asked between steps of a long computation; true means: stop now and return the best so far. */
@FunctionalInterface
public interface CancelSignal {
    CancelSignal NEVER = () -> false;

    boolean isCancelled();
}
