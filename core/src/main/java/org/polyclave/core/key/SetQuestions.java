package org.polyclave.core.key;

import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import org.polyclave.core.key.KeyOptions.SetQuestion;

/** Characters that must be asked in some places, which are known by the rows in play there. */
final class SetQuestions {
    private final Map<BitSet, Integer> characters = new HashMap<>();
    private final KeyProblem problem;

    SetQuestions(KeyProblem problem, List<SetQuestion> questions) {
        this.problem = problem;
        for (SetQuestion question : questions) {
            BitSet rows = new BitSet();
            question.rows().forEach(rows::set);
            if (question.rows().isEmpty()) {
                rows.set(0, problem.matrix.rowCount());
            }
            characters.put(rows, question.character());
        }
    }

    OptionalInt at(Position position) {
        if (characters.isEmpty()) {
            return OptionalInt.empty();
        }
        BitSet rows = new BitSet();
        for (int specimens : position.classes) {
            rows.set(problem.rowOf[specimens]);
        }
        Integer character = characters.get(rows);
        return character == null ? OptionalInt.empty() : OptionalInt.of(character);
    }

    /** Whether a lead of a split comes to another place that has a question: what leads there must stay as it is. */
    boolean areAhead(Position position, Split split) {
        return isAhead(position, split, true) || isAhead(position, split, false);
    }

    private boolean isAhead(Position position, Split split, boolean first) {
        BitSet rows = new BitSet();
        for (int k = 0; k < position.size(); k++) {
            if (position.enters(k, split, first)) {
                rows.set(problem.rowOf[position.classes[k]]);
            }
        }
        return characters.containsKey(rows);
    }
}
