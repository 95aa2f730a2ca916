package org.polyclave.study.checks;

import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/** What kind of slip or gap a finding is. Its sentence is in {@code wording.finding}, under its code. */
public enum FindingKind {
    DANGER_NOT_RULED_OUT,
    DANGER_IN_NO_KEY,
    HAZARD_NOT_ASSESSED,
    NO_CAUTION,
    SAME_TEXT,
    NO_QUESTION,
    NO_DEFINITION,
    NEAR_TERM,
    SHARED_NAME,
    NO_PICTURE,
    UNUSED_STATE,
    NEVER_VARIES,
    SEPARATES_NOTHING,
    SAME_ROWS,
    IMPLIED,
    NEARLY_IMPLIED,
    RANGES_TOUCH,
    NOT_APPLICABLE_BUT_APPLIES,
    SCORED_BUT_NOT_APPLICABLE,
    UNKNOWN_ROW,
    UNKNOWN_CHARACTER,
    CHILD_OUTSIDE_PARENT,
    NO_SOURCE,
    SINGLE_VALUE,
    FEW_INDIVIDUALS,
    OUT_OF_SEASON,
    CIRCULAR_EVIDENCE,
    EVIDENCE_ELSEWHERE,
    TEXT_AGAINST_SCORE,
    CLAIM_FAILS,
    CLAIM_UNTESTABLE,
    RATIO_OUT_OF_LINE,
    REST_NOT_CONFIRMED,
    WHOLE_OR_REST,
    REST_NOT_SCORED,
    NOT_SCORED,
    ONLY_DESCRIBED,
    ONLY_INHERITED,
    READING_TO_SETTLE,
    OUT_OF_PROPORTION,
    OUT_OF_DATE;

    /** A hazard that is not known stays open until it is known, whatever anybody intends. */
    private static final Set<FindingKind> NEVER_ACCEPTED =
            EnumSet.of(DANGER_NOT_RULED_OUT, DANGER_IN_NO_KEY, HAZARD_NOT_ASSESSED, NO_CAUTION);

    /** The name in files, keys of findings and the catalogue of sentences: words joined by hyphens. */
    public String code() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** Whether an author may accept such a finding as intended. */
    public boolean isAcceptable() {
        return !NEVER_ACCEPTED.contains(this);
    }
}
