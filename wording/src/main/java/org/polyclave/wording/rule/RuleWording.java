package org.polyclave.wording.rule;

import org.polyclave.study.rules.StudyRules.Violation;
import org.polyclave.wording.catalogue.Catalogue;

/** What is wrong where a rule does not hold, and what to do. */
public final class RuleWording {
    private static final Catalogue CATALOGUE = Catalogue.english("rule");

    private RuleWording() {}

    public static String sentence(Violation violation) {
        return CATALOGUE.text(violation.rule().code(), violation.facts());
    }
}
