package org.polyclave.core.key;

import java.util.List;

/**
 * What one character can do at a position.
 *
 * @param askable whether it applies to every class in play
 * @param separates whether it strictly parts two rows of different targets here
 * @param candidates the splits it offers; each loses at least one class from a lead
 */
record CharacterSurvey(boolean askable, boolean separates, List<Candidate> candidates) {
    /** Whether some split that is read at once gains so much. */
    boolean gains(double bits) {
        for (Candidate candidate : candidates) {
            if (candidate.contiguous() && candidate.netGain() >= bits) {
                return true;
            }
        }
        return false;
    }
}
