package org.polyclave.wording.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class CatalogueTest {
    private final Catalogue findings = Catalogue.english("finding");

    @Test
    void whatAuthorsTypedIsNeverTakenForAMessage() {
        assertThat(findings.text("no-question", Map.of("character", "it's {row} # 'so'")))
                .startsWith("'it's {row} # 'so'' has no question");
    }

    @Test
    void anEmptyFactIsLeftOutOfTheSentence() {
        assertThat(findings.text("no-caution", Map.of("row", "Bane", "hazard", " ")))
                .isEqualTo("'Bane' is dangerous, but nothing says how. Record the hazard with its kind and a caution.");
        assertThat(findings.text("no-caution", Map.of("row", "Bane", "hazard", "sap")))
                .startsWith("'Bane' is dangerous (sap), but no caution");
    }

    @Test
    void longListsOfNamesAreCounted() {
        List<String> names = IntStream.rangeClosed(1, 9).mapToObj(i -> "s" + i).toList();
        assertThat(findings.text("no-definition", Map.of("character", "margin", "states", names)))
                .contains("words: 's1', 's2', 's3', 's4', 's5', 's6' and 3 more.");
        assertThat(findings.text("no-definition", Map.of("character", "margin", "states", List.of("s1"))))
                .contains("words: 's1'.");
    }

    @Test
    void groupsOfFactsHaveAMessageOfTheirOwn() {
        Map<String, Object> facts = Map.of(
                "row",
                "Aa",
                "specimens",
                List.of(Map.of("specimen", "S-1", "name", "Bb"), Map.of("specimen", "S-2", "name", "")));
        assertThat(findings.text("evidence-elsewhere", facts)).contains(": 'S-1' (Bb); 'S-2' (not identified). Check");
    }

    @Test
    void aMissingMessageOrFactIsAFault() {
        assertThatThrownBy(() -> findings.text("nothing", Map.of())).hasMessageContaining("nothing");
        assertThatThrownBy(() -> findings.text("no-question", Map.of())).hasMessageContaining("character");
    }
}
