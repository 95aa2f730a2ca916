package org.polyclave.study.rules;

/** What somebody asked for cannot be meant; the message is a sentence for them, with the remedy. */
public final class InvalidInput extends RuntimeException {
    private static final long serialVersionUID = 1;

    public InvalidInput(String sentence) {
        super(sentence);
    }
}
