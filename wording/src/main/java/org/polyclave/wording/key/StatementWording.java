package org.polyclave.wording.key;

import org.polyclave.core.key.Atoms;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.wording.lead.Clause;
import org.polyclave.wording.lead.English;
import org.polyclave.wording.lead.Seen;

/** Words for a character by itself: as a heading, and with what is seen of it. */
public final class StatementWording {
    private StatementWording() {}

    /** Organ and character, with a capital. */
    public static String subject(StudyCharacter character) {
        return English.capital(Clause.subject(character));
    }

    /** The clause with all that is accepted: "leaf margin toothed or lobed", "leaf more than 6 mm wide". */
    static String clause(Atoms atoms, StudyCharacter character) {
        Clause clause = Clause.of(character, false);
        Seen seen = Seen.of(character, clause, atoms);
        return clause.fill(seen.words(), seen.count(), false);
    }
}
