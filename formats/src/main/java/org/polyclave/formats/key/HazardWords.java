package org.polyclave.formats.key;

import java.util.List;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.formats.study.StudyRow;

/** Hazards in words; never "harmless". */
public final class HazardWords {
    private HazardWords() {}

    public static String severity(Hazard hazard) {
        return switch (hazard) {
            case NOT_ASSESSED -> "hazard not assessed";
            case NONE_KNOWN -> "no hazard known";
            case CAUTION -> "caution";
            case SERIOUS -> "serious hazard";
            case LIFE_THREATENING -> "life-threatening hazard";
        };
    }

    /** Severity, kinds and cautions of a row in one sentence. */
    public static String describe(StudyRow row) {
        List<String> kinds = row.hazards().stream()
                .map(h -> h.kind()
                        + (h.parts().isEmpty() ? "" : " (" + h.parts() + ")")
                        + (h.caution().isEmpty() ? "" : ". " + h.caution()))
                .toList();
        return kinds.isEmpty() ? severity(row.hazard()) : severity(row.hazard()) + ": " + String.join("; ", kinds);
    }
}
