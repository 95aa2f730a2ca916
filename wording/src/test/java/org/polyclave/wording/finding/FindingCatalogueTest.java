package org.polyclave.wording.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.polyclave.core.check.Finding;
import org.polyclave.study.checks.FindingKind;
import org.polyclave.wording.catalogue.Catalogue;

class FindingCatalogueTest {
    @Test
    void everyFindingOfTheMatrixIsOneOfTheStudyToo() {
        for (Finding.Kind kind : Finding.Kind.values()) {
            assertThat(FindingKind.valueOf(kind.name()).isAcceptable())
                    .as(kind.name())
                    .isTrue();
        }
    }

    @Test
    void everyKindHasItsSentenceAndThereIsNoOther() {
        List<String> codes =
                Arrays.stream(FindingKind.values()).map(FindingKind::code).toList();
        assertThat(Catalogue.english("finding").keys().stream()
                        .filter(key -> !key.contains("."))
                        .collect(Collectors.toSet()))
                .containsExactlyInAnyOrderElementsOf(codes);
    }
}
