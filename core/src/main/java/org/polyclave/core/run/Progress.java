package org.polyclave.core.run;

/** Told now and then how much of a long computation is done. */
@FunctionalInterface
public interface Progress {
    Progress UNSEEN = share -> {};

    /** @param share part of the work that is done, from 0 to 1, never less than before */
    void report(double share);
}
