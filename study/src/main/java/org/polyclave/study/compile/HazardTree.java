package org.polyclave.study.compile;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.study.model.StudyRow;

/**
 * What harm each row can do. Hazards go down the tree, and from the parents to a hybrid: the worst counts. Only an assessment
 * of its own, with a source, makes a row less dangerous than what it belongs to; and a severity that was lowered stands until
 * somebody else has confirmed it.
 */
public final class HazardTree {
    private final Map<String, StudyRow> rows = new HashMap<>();
    private final Map<String, Standing> known = new HashMap<>();

    /** What stands for a row: the worst severity, and everything recorded that bears on it. */
    public record Standing(Hazard severity, List<StudyRow.HazardRecord> records) {
        public Standing {
            records = List.copyOf(records);
        }

        private Standing worse(Standing other) {
            Set<StudyRow.HazardRecord> all = new LinkedHashSet<>(records);
            all.addAll(other.records);
            Hazard worst = severity.compareTo(other.severity) >= 0 ? severity : other.severity;
            return new Standing(worst, new ArrayList<>(all));
        }
    }

    public HazardTree(List<StudyRow> all) {
        all.forEach(r -> rows.put(r.id(), r));
    }

    public Standing of(StudyRow row) {
        return of(row, new HashSet<>());
    }

    /** The row as everybody must take it. */
    public StudyRow applied(StudyRow row) {
        Standing standing = of(row);
        return standing.severity() == row.hazard() && standing.records().equals(row.hazards())
                ? row
                : row.withHazards(standing.severity(), standing.records());
    }

    /** In which ways it harms. */
    public Harm harm(StudyRow row) {
        return HazardRoutes.of(applied(row));
    }

    private Standing of(StudyRow row, Set<String> passed) {
        Standing found = known.get(row.id());
        if (found != null) {
            return found;
        }
        if (!passed.add(row.id())) {
            // A circle, which the rules of studies refuse, adds nothing.
            return own(row);
        }
        Standing standing = own(row);
        if (!isAssessedAlone(row)) {
            standing = withWhatItBelongsTo(row, standing, passed);
        }
        known.put(row.id(), standing);
        return standing;
    }

    /** Its own record; of one that was lowered without a second person, what stood before, too. */
    private static Standing own(StudyRow row) {
        Standing own = new Standing(row.hazard(), row.hazards());
        StudyRow.Lowering lowering = row.assessment().lowering();
        return lowering == null ? own : own.worse(new Standing(lowering.hazard(), lowering.hazards()));
    }

    private static boolean isAssessedAlone(StudyRow row) {
        return row.hazard() != Hazard.NOT_ASSESSED
                && !row.assessment().source().isBlank()
                && row.assessment().lowering() == null;
    }

    private Standing withWhatItBelongsTo(StudyRow row, Standing own, Set<String> passed) {
        Standing standing = own;
        StudyRow parent = row.parent() == null ? null : rows.get(row.parent());
        if (parent != null) {
            Standing above = of(parent, passed);
            // "None known" of a taxon says nothing of its varieties, but holds for its sexes and stages.
            boolean passes = above.severity().compareTo(Hazard.CAUTION) >= 0 || row.isSemaphoront();
            standing = passes ? standing.worse(above) : standing;
        }
        for (String id : row.hybridOf()) {
            StudyRow other = rows.get(id);
            Standing of = other == null ? own : of(other, passed);
            standing = of.severity().compareTo(Hazard.CAUTION) >= 0 ? standing.worse(of) : standing;
        }
        return standing;
    }
}
