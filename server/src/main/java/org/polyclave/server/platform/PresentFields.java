package org.polyclave.server.platform;

import java.lang.reflect.AnnotatedType;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;

/**
 * A request whose record has a field without {@code @Nullable} must bring that field, and lists hold no nulls: what is missing
 * is named, before any handler meets it.
 */
@RestControllerAdvice
class PresentFields extends RequestBodyAdviceAdapter {
    @Override
    public boolean supports(MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        return true;
    }

    @Override
    public Object afterBodyRead(
            Object body,
            HttpInputMessage message,
            MethodParameter parameter,
            Type type,
            Class<? extends HttpMessageConverter<?>> converter) {
        absent(body, "").ifPresent(field -> {
            throw Problems.missing(field);
        });
        return body;
    }

    /** The first field that is not there. */
    static Optional<String> absent(Object value, String path) {
        if (value instanceof Record fields) {
            for (RecordComponent component : fields.getClass().getRecordComponents()) {
                String name = path.isEmpty() ? component.getName() : path + "." + component.getName();
                Object content = content(fields, component);
                if (content == null && !mayBeNull(component)) {
                    return Optional.of(name);
                }
                Optional<String> inside = content == null ? Optional.empty() : absent(content, name);
                if (inside.isPresent()) {
                    return inside;
                }
            }
        }
        if (value instanceof Map<?, ?> map) {
            for (Map.Entry<?, ?> entry : map.entrySet()) {
                Optional<String> inside = element(entry.getValue(), path + "." + entry.getKey());
                if (inside.isPresent()) {
                    return inside;
                }
            }
        }
        if (value instanceof Collection<?> all) {
            int at = 0;
            for (Object one : all) {
                Optional<String> inside = element(one, path + "[" + at++ + "]");
                if (inside.isPresent()) {
                    return inside;
                }
            }
        }
        return Optional.empty();
    }

    private static Optional<String> element(@Nullable Object value, String path) {
        return value == null ? Optional.of(path) : absent(value, path);
    }

    private static boolean mayBeNull(RecordComponent component) {
        AnnotatedType type = component.getAnnotatedType();
        return type.isAnnotationPresent(Nullable.class);
    }

    private static @Nullable Object content(Record fields, RecordComponent component) {
        try {
            component.getAccessor().setAccessible(true);
            return component.getAccessor().invoke(fields);
        } catch (IllegalAccessException | InvocationTargetException unreadable) {
            throw new IllegalStateException("A request of " + fields.getClass() + " cannot be looked at", unreadable);
        }
    }
}
