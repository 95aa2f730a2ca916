package org.polyclave.core.matrix;

import java.util.List;

/** Whether a character exists on the specimens of a row, as far as its controlling characters tell. */
public enum Applicability {
    /** On all of them. */
    CERTAIN,
    /** On some, or nobody knows. */
    POSSIBLE,
    /** On none. */
    IMPOSSIBLE;

    /** Follows the controlling characters up; time linear in them. */
    public static Applicability of(Matrix matrix, int row, int character) {
        if (matrix.cell(row, character) instanceof Cell.NotApplicable) {
            return IMPOSSIBLE;
        }
        Applicability found = CERTAIN;
        List<ControllingCondition> conditions = matrix.character(character).appliesWhen();
        for (int k = 0; k < conditions.size(); k++) {
            ControllingCondition condition = conditions.get(k);
            Applicability above = of(matrix, row, condition.character());
            int shown = matrix.cell(row, condition.character()) instanceof Cell.Categorical states
                    ? states.readable()
                    : matrix.character(condition.character()).allStates();
            if (above == IMPOSSIBLE || (shown & condition.states()) == 0) {
                return IMPOSSIBLE;
            }
            if (above == POSSIBLE || (shown & ~condition.states()) != 0) {
                found = POSSIBLE;
            }
        }
        return found;
    }
}
