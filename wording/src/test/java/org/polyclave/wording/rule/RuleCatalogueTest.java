package org.polyclave.wording.rule;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.polyclave.study.rules.Rule;
import org.polyclave.wording.catalogue.Catalogue;

class RuleCatalogueTest {
    @Test
    void everyRuleHasItsSentenceAndThereIsNoOther() {
        assertThat(Catalogue.english("rule").keys())
                .containsExactlyInAnyOrderElementsOf(
                        Arrays.stream(Rule.values()).map(Rule::code).toList());
    }
}
