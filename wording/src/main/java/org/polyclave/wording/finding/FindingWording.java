package org.polyclave.wording.finding;

import java.util.Map;
import org.polyclave.study.checks.StudyFinding;
import org.polyclave.wording.catalogue.Catalogue;

/** What a finding says: what is wrong, why it matters and what to do. */
public final class FindingWording {
    private static final Catalogue CATALOGUE = Catalogue.english("finding");

    private FindingWording() {}

    public static String reason(StudyFinding finding) {
        return CATALOGUE.text(finding.kind().code(), finding.facts());
    }

    /** What one click would do; empty where nothing is certain. */
    public static String correction(StudyFinding finding) {
        return finding.correction().isEmpty()
                ? ""
                : CATALOGUE.text(finding.kind().code() + ".correction", Map.of("right", finding.correction()));
    }
}
