package org.polyclave.wording.lead;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.notation.NotationPrinter;

/** What a cell says, as a clause: "leaf margin usually toothed, rarely entire", "leaf (3–)5–9 mm wide". */
public final class CellClause {
    private final StudyCharacter character;
    private final Clause clause;
    private final StudyCharacter reading;

    /** For many cells of one character: making its clause takes longer than filling it in. */
    public CellClause(StudyCharacter character, boolean plain) {
        this.character = character;
        clause = Clause.of(character, plain);
        reading = character.withStates(reading(character, clause));
    }

    public static String of(StudyCharacter character, ScoreValue value, boolean plain) {
        return new CellClause(character, plain).of(value);
    }

    public String of(ScoreValue value) {
        return clause.fill(seen(value), count(value), false);
    }

    private String seen(ScoreValue value) {
        if (value instanceof ScoreValue.Any) {
            return "of any kind";
        }
        if (value instanceof ScoreValue.Months months) {
            return Seen.inMonths(months.months());
        }
        if (value instanceof ScoreValue.Range) {
            String unit = character.type() == CharacterType.COUNT ? "" : Seen.unit(character);
            return NotationPrinter.print(value, character).replace(">=", "at least ") + unit;
        }
        // The notation of cells has the frequencies; the words are those of leads.
        return NotationPrinter.print(value, reading).replace(" / ", " or ").replace(" + ", " and ");
    }

    private static List<StudyState> reading(StudyCharacter character, Clause clause) {
        List<StudyState> states = new ArrayList<>();
        for (int s = 0; s < clause.phrases().size(); s++) {
            states.add(character.states().get(s).withLabel(clause.phrases().get(s)));
        }
        return states;
    }

    private static double count(ScoreValue value) {
        return value instanceof ScoreValue.Range range && range.max() != null ? range.max() : 2;
    }
}
