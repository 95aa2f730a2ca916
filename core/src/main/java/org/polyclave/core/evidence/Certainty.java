package org.polyclave.core.evidence;

/** How sure a reader is; less certainty is a higher rate of misreading. Against a danger only sure and likely looks count. */
public enum Certainty {
    SURE(0),
    LIKELY(0.10),
    UNSURE(0.25);

    private final double addedMisreading;

    Certainty(double addedMisreading) {
        this.addedMisreading = addedMisreading;
    }

    /** What is added to the rate of misreading where answers are weighed. */
    public double addedMisreading() {
        return addedMisreading;
    }
}
