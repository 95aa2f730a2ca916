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

    private SetQuestions(KeyProblem problem, Map<BitSet, Integer> characters) {
        this.problem = problem;
        this.characters.putAll(characters);
    }

    SetQuestions(KeyProblem problem, List<SetQuestion> questions) {
        this.problem = problem;
        for (SetQuestion question : questions) {
            BitSet rows = question.rows().isEmpty() ? allRows() : new BitSet();
            question.rows().forEach(rows::set);
            characters.put(rows, question.character());
        }
    }

    /** With what is asked where all rows are in play. */
    SetQuestions beginningWith(int character) {
        SetQuestions more = new SetQuestions(problem, characters);
        more.characters.put(allRows(), character);
        return more;
    }

    private BitSet allRows() {
        BitSet rows = new BitSet();
        rows.set(0, problem.matrix.rowCount());
        return rows;
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
