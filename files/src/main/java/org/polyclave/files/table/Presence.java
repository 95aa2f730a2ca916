package org.polyclave.files.table;

import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The many ways in which people write that something is there or not. */
final class Presence {
    private static final Map<String, String> SAID = Map.ofEntries(
            Map.entry("+", "present"),
            Map.entry("x", "present"),
            Map.entry("✓", "present"),
            Map.entry("yes", "present"),
            Map.entry("y", "present"),
            Map.entry("1", "present"),
            Map.entry("no", "absent"),
            Map.entry("n", "absent"),
            Map.entry("0", "absent"),
            Map.entry("−", "absent"),
            Map.entry("-", "absent"));

    /** Both, whichever of them the table says: a part that all rows have can still be absent. */
    static final String STATES = "absent|present";

    private Presence() {}

    /** Present or absent, or the text itself where it says neither. */
    static String read(String text) {
        return SAID.getOrDefault(text.toLowerCase(Locale.ROOT), text);
    }

    /** Whether texts say nothing but present and absent, and present at least once. */
    static boolean isAll(List<String> texts) {
        boolean some = false;
        for (String text : texts) {
            boolean blank = text.isEmpty() || text.equals("?");
            if (!blank && !SAID.containsKey(text.toLowerCase(Locale.ROOT))) {
                return false;
            }
            some |= read(text).equals("present");
        }
        return some;
    }
}
