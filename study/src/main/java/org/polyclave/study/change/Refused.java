package org.polyclave.study.change;

/** A change cannot be made; the message is one sentence with the remedy. */
public final class Refused extends RuntimeException {
    private static final long serialVersionUID = 1;

    public Refused(String sentence) {
        super(sentence);
    }

    /** The sentence. */
    public String sentence() {
        return String.valueOf(getMessage());
    }
}
