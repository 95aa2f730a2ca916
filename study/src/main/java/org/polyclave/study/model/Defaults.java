package org.polyclave.study.model;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** Stands in for parts that older study files do not have. */
final class Defaults {
    private Defaults() {}

    static <T> T or(@Nullable T value, T otherwise) {
        return value == null ? otherwise : value;
    }

    static <T> List<T> list(@Nullable List<T> values) {
        return values == null ? List.of() : List.copyOf(values);
    }
}
