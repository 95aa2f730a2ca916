package org.polyclave.wording.key;

import org.polyclave.core.matrix.Hazard;
import org.polyclave.study.model.StudyRow;

/** Hazards in words; never "harmless". */
public final class HazardWording {
    private HazardWording() {}

    public static String severity(Hazard hazard) {
        return switch (hazard) {
            case NOT_ASSESSED -> "hazard not assessed";
            case NONE_KNOWN -> "no hazard known";
            case CAUTION -> "caution";
            case SERIOUS -> "serious hazard";
            case LIFE_THREATENING -> "life-threatening hazard";
        };
    }

    /** Severity, kinds and cautions of a row, as sentences. */
    public static String describe(StudyRow row) {
        StringBuilder text = new StringBuilder(severity(row.hazard()));
        for (int k = 0; k < row.hazards().size(); k++) {
            StudyRow.HazardRecord hazard = row.hazards().get(k);
            text.append(k == 0 ? ": " : " Also ").append(hazard.kind());
            text.append(hazard.parts().isEmpty() ? "" : " (" + hazard.parts() + ")")
                    .append('.');
            text.append(hazard.caution().isEmpty() ? "" : " " + hazard.caution());
        }
        return text.toString();
    }
}
