package org.polyclave.files.table;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The many ways in which people write that something is there or not. */
final class Presence {
    private static final Map<String, String> SAID = Map.ofEntries(
            Map.entry("+", "present"),
            Map.entry("x", "present"),
            Map.entry("✓", "present"),
            Map.entry("✔", "present"),
            Map.entry("yes", "present"),
            Map.entry("y", "present"),
            Map.entry("true", "present"),
            Map.entry("present", "present"),
            Map.entry("1", "present"),
            Map.entry("no", "absent"),
            Map.entry("n", "absent"),
            Map.entry("false", "absent"),
            Map.entry("absent", "absent"),
            Map.entry("0", "absent"),
            Map.entry("−", "absent"),
            Map.entry("–", "absent"),
            Map.entry("-", "absent"),
            Map.entry("±", "present, absent"),
            Map.entry("+/-", "present, absent"));
    /** In brackets: it is said with less confidence. */
    private static final Pattern BRACKETED = Pattern.compile("\\(\\s*(\\S+)\\s*\\)");

    /** Both, whichever of them the table says: a part that all rows have can still be absent. */
    static final String STATES = "absent|present";

    private Presence() {}

    /** Present or absent with what was remarked, or the text itself where it says neither. */
    static CellRemarks read(String text) {
        CellRemarks remarks = CellRemarks.of(text);
        Matcher bracketed = BRACKETED.matcher(remarks.text());
        String said = known(remarks.text());
        if (said == null && bracketed.matches() && known(bracketed.group(1)) != null) {
            return new CellRemarks(
                    String.valueOf(known(bracketed.group(1))), (remarks.text() + " " + remarks.note()).strip(), true);
        }
        return said == null
                ? new CellRemarks(text.strip(), "", false)
                : new CellRemarks(said, remarks.note(), remarks.doubtful());
    }

    private static @Nullable String known(String text) {
        return SAID.get(text.toLowerCase(Locale.ROOT));
    }

    /** Whether texts say nothing but present and absent, and present at least once. */
    static boolean isAll(List<String> texts) {
        boolean some = false;
        for (String text : texts) {
            String said = read(text).text();
            boolean blank = text.isEmpty() || text.equals("?");
            if (!blank && !SAID.containsValue(said)) {
                return false;
            }
            some |= said.startsWith("present");
        }
        return some;
    }
}
