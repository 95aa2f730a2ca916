package org.polyclave.study.model;

import java.lang.reflect.RecordComponent;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Reads and replaces the parts of the model's records by name, for what treats all of them alike: joining, comparing, spelling. */
public final class RecordFields {
    private RecordFields() {}

    /** What each part of a record holds, in order. */
    public static Map<String, @Nullable Object> of(Record record) {
        Map<String, @Nullable Object> values = new LinkedHashMap<>();
        for (RecordComponent component : record.getClass().getRecordComponents()) {
            values.put(component.getName(), value(record, component));
        }
        return values;
    }

    public static @Nullable Object value(Record record, RecordComponent component) {
        try {
            return component.getAccessor().invoke(record);
        } catch (ReflectiveOperationException hidden) {
            throw new IllegalStateException(
                    "Records of a study are public, but " + record.getClass() + " is not", hidden);
        }
    }

    /** The record with some parts replaced. */
    public static <T extends Record> T with(T record, Map<String, ? extends @Nullable Object> replaced) {
        RecordComponent[] components = record.getClass().getRecordComponents();
        Class<?>[] types = new Class<?>[components.length];
        @Nullable Object[] values = new @Nullable Object[components.length];
        for (int k = 0; k < components.length; k++) {
            types[k] = components[k].getType();
            String name = components[k].getName();
            values[k] = replaced.containsKey(name) ? replaced.get(name) : value(record, components[k]);
        }
        try {
            @SuppressWarnings("unchecked")
            T now = (T) record.getClass().getDeclaredConstructor(types).newInstance(values);
            return now;
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException("Cannot make a " + record.getClass(), impossible);
        }
    }
}
