package org.polyclave.study.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.polyclave.study.model.GlossaryTerm;

class GlossaryIndexTest {
    private static final GlossaryIndex INDEX = new GlossaryIndex(List.of(
            new GlossaryTerm("gill", "gill", "a plate", "", List.of("lamella"), List.of("gil")),
            new GlossaryTerm("gill-edge", "gill edge", "its rim", "", List.of(), List.of()),
            new GlossaryTerm("naive", "naïve", "with an accent", "", List.of(), List.of())));

    private static List<String> found(String text) {
        return INDEX.find(text).stream()
                .map(o -> text.substring(o.from(), o.to()) + "=" + o.term().id() + (o.misspelt() ? "!" : ""))
                .toList();
    }

    @Test
    void theLongestTermWinsAndOccurrencesDoNotOverlap() {
        assertThat(found("The gill edge of each gill")).containsExactly("gill edge=gill-edge", "gill=gill");
    }

    @Test
    void caseAccentsSynonymsAndPluralsAreTheTerm() {
        assertThat(found("GILLS, Lamella, naïve")).containsExactly("GILLS=gill", "Lamella=gill", "naïve=naive");
    }

    @Test
    void onlyWholeWordsCountAndMisspellingsAreMarked() {
        assertThat(found("gillish, agill, gil.")).containsExactly("gil=gill!");
        assertThat(new GlossaryIndex(List.of()).find("gill")).isEmpty();
    }
}
