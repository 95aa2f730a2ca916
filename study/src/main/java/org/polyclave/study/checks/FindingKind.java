package org.polyclave.study.checks;

import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/** What kind of slip or gap a finding is, those that do most harm first. Its sentence is in {@code wording.finding}, under its code. */
public enum FindingKind {
    // What may lead to a dangerous wrong name.
    DANGER_NOT_RULED_OUT,
    DANGER_IN_NO_KEY,
    NO_CAUTION,
    // What is probably wrong.
    OUT_OF_SCALE,
    ORDER_REVERSED,
    NUMBER_AGAINST_SCORE,
    TEXT_AGAINST_SCORE,
    NEAR_COPY,
    COPIED_TEXT,
    LABEL_IS_SIZE,
    RATIO_OUT_OF_LINE,
    NOT_APPLICABLE_BUT_APPLIES,
    SCORED_BUT_NOT_APPLICABLE,
    CHILD_OUTSIDE_PARENT,
    CLAIM_FAILS,
    OUT_OF_PROPORTION,
    READING_TO_SETTLE,
    OUT_OF_DATE,
    NEARLY_IMPLIED,
    SAME_ROWS,
    SAME_TEXT,
    OUT_OF_SEASON,
    CIRCULAR_EVIDENCE,
    EVIDENCE_ELSEWHERE,
    SHARED_NAME,
    NEAR_TERM,
    // What is not known, or not said.
    HAZARD_NOT_ASSESSED,
    NOT_SCORED,
    ONLY_DESCRIBED,
    REST_NOT_CONFIRMED,
    WHOLE_OR_REST,
    REST_NOT_SCORED,
    RANGES_TOUCH,
    SINGLE_VALUE,
    FEW_INDIVIDUALS,
    CLAIM_UNTESTABLE,
    ONLY_INHERITED,
    UNKNOWN_ROW,
    UNKNOWN_CHARACTER,
    NO_SOURCE,
    // What would make it better.
    GO_TOGETHER,
    SEPARATES_NOTHING,
    NEVER_VARIES,
    IMPLIED,
    UNUSED_STATE,
    NO_QUESTION,
    NO_DEFINITION,
    NO_PICTURE;

    /** A hazard that is not known stays open until it is known, whatever anybody intends. */
    private static final Set<FindingKind> NEVER_ACCEPTED =
            EnumSet.of(DANGER_NOT_RULED_OUT, DANGER_IN_NO_KEY, HAZARD_NOT_ASSESSED, NO_CAUTION);

    /** The name in files, keys of findings and the catalogue of sentences: words joined by hyphens. */
    public String code() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** Whether something is probably wrong: a slip, not a gap. */
    public boolean isProbablyWrong() {
        return compareTo(OUT_OF_SCALE) >= 0 && compareTo(HAZARD_NOT_ASSESSED) < 0;
    }

    /** Whether an author may accept such a finding as intended. */
    public boolean isAcceptable() {
        return !NEVER_ACCEPTED.contains(this);
    }
}
