package org.polyclave.wording.catalogue;

import com.ibm.icu.text.MessageFormat;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Sentences by key, as ICU messages with named arguments: one JSON file a subject and language, read by Java and by
 * programs that translate.
 *
 * <p>Of an argument that is a text there is also {@code hasX}, "true" or "false"; of one that is a list, which prints as
 * quoted names, {@code xCount}; a list of groups prints each group by the message {@code key.x}.
 */
public final class Catalogue {
    /** More names than these tell nothing more; the rest is counted. */
    private static final int NAMED = 6;

    private final Map<String, String> messages;
    private final Locale locale;
    /** Messages that were used, by key: parsing one takes longer than filling it in. */
    private final Map<String, MessageFormat> parsed = new ConcurrentHashMap<>();

    private Catalogue(Map<String, String> messages, Locale locale) {
        this.messages = messages;
        this.locale = locale;
    }

    /**
     * The English sentences of a subject.
     *
     * @throws IllegalArgumentException if there are none
     */
    public static Catalogue english(String subject) {
        String name = "en/" + subject + ".json";
        try (InputStream file = Catalogue.class.getResourceAsStream(name)) {
            if (file == null) {
                throw new IllegalArgumentException("No catalogue " + name);
            }
            return new Catalogue(
                    JsonMapper.shared().readValue(file, new TypeReference<Map<String, String>>() {}), Locale.ENGLISH);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public Set<String> keys() {
        return Set.copyOf(messages.keySet());
    }

    /**
     * The sentence under a key with its arguments filled in.
     *
     * @throws IllegalArgumentException if there is no such key, or an argument of the message is not given
     */
    public String text(String key, Map<String, ?> facts) {
        String message = messages.get(key);
        if (message == null) {
            throw new IllegalArgumentException("No message " + key);
        }
        Map<String, Object> arguments = new HashMap<>();
        facts.forEach((name, fact) -> add(arguments, key, name, fact));
        MessageFormat format = parsed.computeIfAbsent(key, k -> new MessageFormat(message, locale));
        // A format keeps what it needs for plurals, so that two threads cannot use it at once.
        synchronized (format) {
            if (!arguments.keySet().containsAll(format.getArgumentNames())) {
                throw new IllegalArgumentException(
                        "Message " + key + " wants " + format.getArgumentNames() + " of " + arguments.keySet());
            }
            return format.format(arguments);
        }
    }

    private void add(Map<String, Object> arguments, String key, String name, Object fact) {
        if (fact instanceof List<?> list) {
            arguments.put(name, listed(list, key + '.' + name));
            arguments.put(name + "Count", list.size());
            return;
        }
        arguments.put(name, fact);
        if (fact instanceof String text) {
            String capital = Character.toUpperCase(name.charAt(0)) + name.substring(1);
            arguments.put("has" + capital, String.valueOf(!text.isBlank()));
        }
    }

    private String listed(List<?> list, String groupKey) {
        boolean ofGroups = list.stream().anyMatch(Map.class::isInstance);
        String first = list.stream()
                .limit(NAMED)
                .map(one -> one instanceof Map<?, ?> group ? group(groupKey, group) : "'" + one + "'")
                .collect(Collectors.joining(ofGroups ? "; " : ", "));
        return list.size() > NAMED ? first + " and " + (list.size() - NAMED) + " more" : first;
    }

    private String group(String key, Map<?, ?> group) {
        Map<String, Object> facts = new HashMap<>();
        group.forEach((name, fact) -> facts.put(String.valueOf(name), fact));
        return text(key, facts);
    }
}
