package org.polyclave.print.cover;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.files.table.TableReader;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScopeBuilder;
import org.polyclave.wording.cover.Cover;
import org.polyclave.wording.cover.Cover.Declared;
import org.polyclave.wording.cover.Cover.Standing;

/** What a reader reads before any script, sentence by sentence. */
class CoverPageTest {
    private static final List<Integer> ALL_YEAR = List.of(1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12);
    private static final StudyScope SCOPE = StudyScopeBuilder.builder(StudyScope.EMPTY)
            .covers("Two <plants> & their seedlings")
            .leavesOut("All others")
            .build();

    private static Study study(StudyScope scope, OutsideTaxon... outside) {
        return TableReader.read("taxon,petals\nAa,white\nBb,blue\n".getBytes(StandardCharsets.UTF_8), "Gate.csv")
                .study()
                .withScope(scope, List.of(outside));
    }

    private static String page(Study study, List<Declared> declared, List<String> kit, Standing standing) {
        Cover cover = Cover.of(
                study,
                3,
                "2026-05-01",
                List.of("Isolde Quillane", "Oswin Brandreth"),
                List.of("Wear gloves"),
                declared,
                kit,
                standing,
                "Colour was wrong");
        return CoverPage.html(cover, "gate").replaceAll("\\s*\n\\s*", "\n");
    }

    @Test
    void dangersThatCannotBeRuledOutStandInBoldAndThoseThatHardlyCanInAList() {
        String page = page(
                study(SCOPE),
                List.of(
                        new Declared("Bane, flowering", List.of("Mild", "Meek"), List.of(11, 12, 1), "Leave both."),
                        new Declared("Bane", List.of("Mild"), ALL_YEAR, "Ask."),
                        new Declared("Lost bane", List.of(), ALL_YEAR, "Do not touch."),
                        new Declared("Late bane", List.of("Mild"), List.of(9), ""),
                        new Declared("Old bane", List.of("Mild"), ALL_YEAR, "")),
                List.of(),
                Standing.CURRENT);
        assertThat(page)
                .contains(
                        "<p>Wear gloves</p>",
                        "<strong>Bane, flowering cannot be reliably distinguished from Mild; Meek (November to January).</strong> Leave both.",
                        "<strong>Bane cannot be reliably distinguished from Mild in any month.</strong> Ask.",
                        "<strong>Lost bane is dangerous and not in this key.</strong> Do not touch.",
                        "<li>Late bane, where it might be Mild (September)</li>",
                        "<li>Old bane, where it might be Mild</li>",
                        "treat the specimen as the dangerous taxon",
                        "local emergency number or poison centre");
    }

    @Test
    void whatSomebodyWroteIsTextAndWhatNobodyWroteHasNoHeading() {
        String page = page(
                study(SCOPE, new OutsideTaxon("Shorebane", "Salt marshes only", Hazard.SERIOUS)),
                List.of(),
                List.of("lens ×10", "gloves"),
                Standing.CURRENT);
        assertThat(page)
                .contains(
                        "Edition 3, 2026-05-01 · Isolde Quillane, Oswin Brandreth",
                        "<dd>\n<p>Two &lt;plants&gt; &amp; their seedlings</p>\n</dd>",
                        "Its characters and hazards ask for: lens ×10, gloves.",
                        "<li><i>Shorebane</i> — Salt marshes only <span class=\"hazard\">⚠ serious hazard</span></li>")
                .doesNotContain("Region", "Life stages", "hard to rule out", "newer edition", "withdrawn");
        assertThat(page(study(StudyScope.EMPTY), List.of(), List.of(), Standing.CURRENT))
                .as("nothing was written about it")
                .doesNotContain("About this key", "<dt>", "outside");
    }

    @Test
    void anEditionThatShouldNotBeUsedSaysSoFirst() {
        assertThat(page(study(SCOPE), List.of(), List.of(), Standing.WITHDRAWN))
                .containsSubsequence(
                        "role=\"alert\">⚠ This edition was withdrawn: Colour was wrong", "<nav", "Wear gloves");
        assertThat(page(study(SCOPE), List.of(), List.of(), Standing.SUPERSEDED))
                .containsSubsequence("There is a newer edition:", "href=\"/k/gate\"", "<nav");
    }
}
