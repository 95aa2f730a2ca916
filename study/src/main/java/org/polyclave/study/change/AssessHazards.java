package org.polyclave.study.change;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;

/**
 * Says of many taxa at once how dangerous they are, and by what source. None is called less dangerous in this way than it
 * was: that takes a reason and a second person, one taxon at a time. Nor is a sex or stage of a dangerous taxon, or what
 * else belongs to one, called harmless among others.
 *
 * @param rows ids of the rows
 * @param source who or what assessed them
 */
public record AssessHazards(List<String> rows, Hazard hazard, String source) implements StudyOperation {
    public AssessHazards {
        rows = List.copyOf(rows);
    }

    @Override
    public Study apply(Study study) {
        if (hazard == Hazard.NOT_ASSESSED) {
            throw new Refused("Choose how dangerous they are.");
        }
        if (source.isBlank()) {
            throw new Refused("Say by what source they are assessed: a book, a register, a qualified person.");
        }
        Set<String> chosen = new HashSet<>(rows);
        rows.forEach(id -> Parts.row(study, id));
        return study.withRows(study.rows().stream()
                .map(row -> chosen.contains(row.id()) ? assessed(study, row) : row)
                .toList());
    }

    private StudyRow assessed(Study study, StudyRow row) {
        if (row.hazard().compareTo(hazard) > 0) {
            throw new Refused("'" + row.name()
                    + "' is recorded as more dangerous. Assess it by itself, with the reason; leave it out here.");
        }
        if (!hazard.isDangerous() && row.hazard() == Hazard.NOT_ASSESSED && belongsToDanger(study, row)) {
            throw new Refused("'" + row.name()
                    + "' belongs to a dangerous taxon and counts as dangerous until it is assessed by itself. Leave it out"
                    + " here.");
        }
        return row.hazard() == hazard
                ? row
                : row.withHazard(hazard)
                        .withAssessment(new StudyRow.Assessment(
                                source.strip(), row.assessment().lowering()));
    }

    private static boolean belongsToDanger(Study study, StudyRow row) {
        Set<String> seen = new HashSet<>();
        for (String at = row.parent(); at != null && seen.add(at); ) {
            StudyRow above = study.row(at).orElse(null);
            if (above == null) {
                return false;
            }
            if (above.hazard().isDangerous()) {
                return true;
            }
            at = above.parent();
        }
        return false;
    }
}
