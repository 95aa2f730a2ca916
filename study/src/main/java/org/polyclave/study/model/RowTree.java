package org.polyclave.study.model;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What belongs to what among the rows of a study. */
public final class RowTree {
    private final Map<String, StudyRow> rows = new HashMap<>();

    public RowTree(List<StudyRow> rows) {
        rows.forEach(r -> this.rows.put(r.id(), r));
    }

    /** A row and all that it belongs to, itself first; empty if there is no such row. */
    public List<StudyRow> upward(@Nullable String id) {
        List<StudyRow> chain = new ArrayList<>();
        StudyRow at = id == null ? null : rows.get(id);
        // A chain longer than the number of rows is a circle.
        while (at != null && chain.size() <= rows.size()) {
            chain.add(at);
            at = at.parent() == null ? null : rows.get(at.parent());
        }
        return chain;
    }

    /** Whether a row is {@code ancestor} or belongs to it. */
    public boolean belongs(String id, String ancestor) {
        return upward(id).stream().anyMatch(r -> r.id().equals(ancestor));
    }
}
