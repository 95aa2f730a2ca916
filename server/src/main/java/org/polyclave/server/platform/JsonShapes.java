package org.polyclave.server.platform;

import java.util.Map;

/**
 * How types that know nothing of JSON look in the API and in the database.
 *
 * @param shapes by type, a type whose annotations stand for its own
 */
public record JsonShapes(Map<Class<?>, Class<?>> shapes) {
    public JsonShapes {
        shapes = Map.copyOf(shapes);
    }
}
