package org.polyclave.core.identify;

import java.util.List;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.margin.WeighedLooks;

/**
 * What is believed after some answers.
 *
 * @param looked the answers as looks, without those that follow from others
 * @param posterior by row
 * @param outside posterior of something that is not in the matrix
 */
record Belief(
        Evidence given,
        WeighedLooks looked,
        List<Standing> standings,
        double[] posterior,
        double outside,
        List<Margin> margins) {
    boolean isAnswered() {
        return looked.size() > 0;
    }

    /** Whether every row fell away, or there is none. */
    boolean isOfNothing() {
        return standings.isEmpty() || standings.get(0).struckOut();
    }

    /** The likeliest row of the likeliest name. */
    Standing leader() {
        return standings.get(0);
    }

    /** Whether a row is scored for half of the answers at least. */
    boolean isCompared(Standing standing) {
        return 2 * standing.compared() >= looked.size();
    }
}
