package org.polyclave.server.history;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;

/** Where the objects of one kind stand among one another. New ones get places between those that there are. */
public final class Positions {
    /** @param id as the list was asked for: of rows and characters the identifier, of entries the key */
    record Place(String id, double position) {}

    private final List<Place> places;

    Positions(List<Place> places) {
        this.places = places;
    }

    public boolean has(String id) {
        return places.stream().anyMatch(p -> p.id().equals(id));
    }

    /** Where an object stands; 0 if it is not there. */
    public double of(String id) {
        return places.stream()
                .filter(p -> p.id().equals(id))
                .map(Place::position)
                .findFirst()
                .orElse(0.0);
    }

    /** A place behind all others. */
    public double last(String moved) {
        return before(null, moved);
    }

    /** A place before an object, or behind all; the object that is moved itself does not count. */
    public double before(@Nullable String next, String moved) {
        List<Place> others = places.stream().filter(p -> !p.id().equals(moved)).toList();
        if (others.isEmpty()) {
            return 0;
        }
        for (int i = 0; i < others.size(); i++) {
            if (others.get(i).id().equals(next)) {
                double here = others.get(i).position();
                return i == 0 ? here - 1 : (others.get(i - 1).position() + here) / 2;
            }
        }
        if (next != null) {
            throw Problems.badRequest(
                    ProblemCode.BEFORE,
                    "'" + next + "' is not there any more, so nothing can come before it. Reload the study.");
        }
        return others.get(others.size() - 1).position() + 1;
    }
}
