package org.polyclave.study.compile;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;

/**
 * What a row shows when its own cell is empty: its parent's score. A typed unknown blocks inheritance. Computed, never
 * stored.
 */
public final class Inheritance {
    private final Map<String, StudyRow> rows = new HashMap<>();
    private final Map<String, Map<String, StudyScore>> scores;

    /** @param score the score, of this row or of an ancestor */
    public record Effective(StudyScore score, boolean inherited, boolean acrossStages) {}

    public Inheritance(List<StudyRow> rows, Map<String, Map<String, StudyScore>> scores) {
        for (StudyRow row : rows) {
            this.rows.put(row.id(), row);
        }
        this.scores = scores;
    }

    public Optional<Effective> effective(String row, String character) {
        StudyRow start = rows.get(row);
        @Nullable StudyRow at = start;
        // A chain longer than the number of rows is a circle.
        for (int steps = 0; at != null && steps <= rows.size(); steps++) {
            StudyScore score = scores.getOrDefault(at.id(), Map.of()).get(character);
            if (score != null) {
                boolean across = start != null && start.isSemaphoront() && steps > 0;
                return Optional.of(new Effective(score, steps > 0, across));
            }
            at = at.parent() == null ? null : rows.get(at.parent());
        }
        return Optional.empty();
    }
}
