package org.polyclave.print.label;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Specimen.Determination;

/** Labels as they are printed. */
final class LabelSheetTest {
    private static final Specimen SPECIMEN = new Specimen(
            "v-1",
            "V 1",
            List.of(
                    new Determination("mild", "cf.", Specimen.Kind.DETERMINED, "Oswin", "2025", "", List.of()),
                    new Determination("bane", "", Specimen.Kind.CONFIRMED, "Isolde", "2025-06-01", "", List.of())),
            new Specimen.Event("2025-05-04", "the <weir> & Ψ-Σ lock", "47.3, -33.1", 25.0, "Isolde", "wet × dry", ""),
            "adult",
            "female",
            List.of(new Specimen.Treatment(Specimen.Treated.FLUID, "2025-05-06", "")),
            "",
            "");

    @Test
    void aLabelTellsWhatIsKnownAndKeepsEarlierNames() {
        assertThat(Label.collecting(SPECIMEN).lines())
                .containsExactly(
                        "the <weir> & Ψ-Σ lock",
                        "47.3, -33.1, ±25 m",
                        "wet × dry",
                        "2025-05-04, leg. Isolde",
                        "female, adult, kept in fluid, 2025-05-06");
        Label named = Label.determination(
                SPECIMEN, id -> Map.of("mild", "Mild", "bane", "Bane").getOrDefault(id, id));
        assertThat(named.name()).isEqualTo("Bane");
        assertThat(named.qualifier()).isEmpty();
        Label doubted = Label.determination(
                SPECIMEN.withDeterminations(SPECIMEN.determinations().subList(0, 1)), id -> id);
        assertThat(doubted.qualifier() + " " + doubted.name()).isEqualTo("cf. mild");
        assertThat(named.lines()).containsExactly("conf. Isolde, 2025-06-01", "(cf. Mild; det. Oswin, 2025)");
        Specimen blank = new Specimen(
                "v", "V", List.of(), new Specimen.Event("", "", "", 5.0, "", "", ""), "", "", List.of(), "", "");
        assertThat(Label.collecting(blank).lines()).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(LabelSheet.Size.class)
    void everyWordOfEveryLabelIsOnTheSheets(LabelSheet.Size size) throws IOException {
        List<Label> labels = new ArrayList<>();
        for (int i = 0; i < 130; i++) {
            labels.add(new Label("V " + i, "", "", Label.collecting(SPECIMEN).lines()));
        }
        String wordy = "a wet hollow between willows ".repeat(20).strip();
        labels.add(new Label("V 999", "", "", List.of(wordy, "the end of it")));
        try (PDDocument pdf = Loader.loadPDF(LabelSheet.pdf(labels, size))) {
            String text = new PDFTextStripper().getText(pdf).replaceAll("\\s+", " ");
            assertThat(text.split("Ψ-Σ", -1)).hasSize(131);
            assertThat(text.split("wet × dry", -1)).hasSize(131);
            assertThat(text).contains("V 129").contains("V 999").contains("the end of it");
            assertThat(text.split("hollow", -1)).hasSize(21);
            // So many to a sheet of A4 with margins of 8 mm; the wordy one may need a sheet more.
            int fit = switch (size) {
                case VIAL -> 6 * 23;
                case PIN -> 4 * 15;
                case BOX -> 3 * 10;
                case SHEET -> 2 * 5;
            };
            int pages = (labels.size() + fit - 1) / fit;
            assertThat(pdf.getNumberOfPages()).isBetween(pages, pages + 1);
        }
    }
}
