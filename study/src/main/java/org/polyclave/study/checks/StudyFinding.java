package org.polyclave.study.checks;

/**
 * Something in a study that may be a slip or a gap, in words.
 *
 * @param kind what kind of finding, for programs: words joined by hyphens
 * @param row id of the row it is about, or empty
 * @param character id of the character, or empty
 * @param other id of another row, character or state that it is about, or empty
 * @param reason what is wrong, why it matters and what to do, in sentences
 * @param correction what {@link Correction} would do, in words; empty where nothing is certain
 */
public record StudyFinding(String kind, String row, String character, String other, String reason, String correction) {
    public StudyFinding(String kind, String row, String character, String other, String reason) {
        this(kind, row, character, other, reason, "");
    }

    /** A name that stays the same as long as the finding is about the same thing. */
    public String key() {
        return String.join("/", kind, row, character, other);
    }
}
