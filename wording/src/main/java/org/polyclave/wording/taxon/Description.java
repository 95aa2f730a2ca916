package org.polyclave.wording.taxon;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.wording.lead.CellClause;

/** What a row shows, character by character, in the clauses of leads and the one unit of each character. */
public final class Description {
    /**
     * What it shows of one character.
     *
     * @param organ as the character has it; may be empty
     * @param character its id
     */
    public record Line(String organ, String character, String technical, String plain) {}

    private Description() {}

    /** An empty cell shows what its parent does; what is unknown, or does not apply, is left out. */
    public static List<Line> of(CompiledStudy compiled, StudyRow row) {
        Inheritance inheritance = new Inheritance(compiled.study().rows(), compiled.scores());
        List<Line> lines = new ArrayList<>();
        for (StudyCharacter character : compiled.study().characters()) {
            Optional<ScoreValue> value = inheritance
                    .effective(row.id(), character.id())
                    .map(e -> e.score().value());
            if (value.isPresent()
                    && !(value.get() instanceof ScoreValue.Unknown)
                    && !(value.get() instanceof ScoreValue.NotApplicable)) {
                lines.add(new Line(
                        character.organ(),
                        character.id(),
                        CellClause.of(character, value.get(), false),
                        CellClause.of(character, value.get(), true)));
            }
        }
        return lines;
    }
}
