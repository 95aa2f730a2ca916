package org.polyclave.files.table;

import java.util.Locale;
import java.util.Map;

/** How columns that describe specimens are headed, in tables of specimens and of readings. */
public final class SpecimenHeadings {
    private static final Map<String, String> OTHER_NAMES = Map.of(
            "individual", "specimen",
            "voucher", "specimen",
            "taxon", "row",
            "det.", "determined by",
            "collecting event", "event",
            "collection", "event",
            "repeat", "repetition",
            "uncertainty (m)", "uncertainty",
            "substrate", "host");

    private SpecimenHeadings() {}

    /** The one name of a heading that may be written in several ways; in small letters. */
    public static String nameOf(String heading) {
        String name = heading.strip().toLowerCase(Locale.ROOT);
        return OTHER_NAMES.getOrDefault(name, name);
    }
}
