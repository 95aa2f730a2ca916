package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.identify.Identification.Contribution;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.margin.SafetyMargin;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/** What keeps the likeliest name from being settled. */
final class Rivals {
    /** Features on one part that contradict a rival as firmly as two on two parts: a part may mislead. */
    private static final int ENOUGH_OF_ONE_PART = 3;

    private static final int LEAST = 2;
    /** Features for each that contradicts the name itself: who misread some things of it misread others that spoke for its rivals. */
    private static final int FOR_EACH = 2;

    private final Matrix matrix;
    private final UsableEvidence evidence;
    private final SafetyMargin margin;

    Rivals(Matrix matrix, SafetyMargin margin) {
        this.matrix = matrix;
        this.margin = margin;
        evidence = new UsableEvidence(matrix);
    }

    /**
     * Rows of other names that are of some weight and not contradicted firmly; of a dangerous name also those over which it is
     * not favoured as firmly as it would take to rule it out. Rows that are hardly scored for the answers do not count; they
     * are named beside the result.
     */
    List<Standing> of(Belief belief) {
        Standing leader = belief.leader();
        List<Standing> rivals = new ArrayList<>();
        int least = LEAST + FOR_EACH * contradictions(leader).size();
        boolean dangerous = matrix.row(leader.row()).hazard().isDangerous();
        for (int k = 0; k < belief.standings().size(); k++) {
            Standing rival = belief.standings().get(k);
            if (belief.isCompared(rival) && !matrix.sharesName(leader.row(), rival.row())) {
                boolean stands = rival.isRivalOf(leader) && !isFirmlyContradicted(rival, least);
                if (stands || (dangerous && !margin.isFirmlyFavoured(leader.row(), rival.row(), belief.looked()))) {
                    rivals.add(rival);
                }
            }
        }
        return rivals;
    }

    /** By some features at least, of two parts of which neither lies in the other, or three of them. */
    private boolean isFirmlyContradicted(Standing rival, int least) {
        List<Integer> characters = contradictions(rival);
        return characters.size() >= least
                && (characters.size() >= ENOUGH_OF_ONE_PART || evidence.areOfTwoParts(characters));
    }

    /** Whether a row is contradicted on two parts of which neither lies in the other. */
    boolean isContradictedOnTwoParts(Standing row) {
        return evidence.areOfTwoParts(contradictions(row));
    }

    /** A character of each feature that contradicts a row; of those that decide. */
    private List<Integer> contradictions(Standing rival) {
        List<Integer> groups = new ArrayList<>();
        List<Integer> characters = new ArrayList<>();
        for (int k = 0; k < rival.contributions().size(); k++) {
            Contribution contribution = rival.contributions().get(k);
            MatrixCharacter character = matrix.character(contribution.character());
            if (contribution.contradicts()
                    && !contribution.rough()
                    && character.role().decides()
                    && !groups.contains(character.group())) {
                groups.add(character.group());
                characters.add(contribution.character());
            }
        }
        return characters;
    }
}
