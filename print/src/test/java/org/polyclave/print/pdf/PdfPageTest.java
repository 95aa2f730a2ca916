package org.polyclave.print.pdf;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import java.util.TreeSet;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.print.card.PrintedPicture;

class PdfPageTest {
    /** Pictures and drawings on a page that holds this. */
    private static long drawn(String body) throws IOException {
        byte[] pdf = PdfPage.of("<html><head><title>t</title></head><body><p>a " + body + "</p></body></html>");
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return document.getPage(0)
                    .getResources()
                    .getXObjectNames()
                    .spliterator()
                    .getExactSizeIfKnown();
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"png", "jpeg"})
    void photographsArePrinted(String format) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(60, 40, BufferedImage.TYPE_INT_RGB), format, bytes);
        assertThat(drawn(new PrintedPicture("image/" + format, 60, 40, bytes.toByteArray()).html(0.1)))
                .isEqualTo(1);
    }

    @Test
    void drawingsArePrinted() throws IOException {
        byte[] drawing = "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 9 9\"><path d=\"M1 1L8 8\"/></svg>"
                .getBytes(StandardCharsets.UTF_8);
        assertThat(drawn(new PrintedPicture("image/svg+xml", 9, 9, drawing).html(1)))
                .isEqualTo(1);
    }

    @Test
    void nothingIsLoadedFromElsewhere() throws IOException {
        assertThat(drawn("<img src=\"file:/etc/passwd.png\"/><img src=\"http://127.0.0.1:1/a.png\"/>"))
                .isZero();
    }

    /** Every weight and slant that pages use is a face of the product's own; nothing falls back. */
    @Test
    void onlyOurOwnTypefacesAreUsed() throws IOException {
        String words = "5–9 mm ≥ × → ± µ ° “Aa” ▲ ♂ ♀";
        byte[] pdf = PdfPage.of(
                "<html><head><style>body{font-family:page-sans}h1,i{font-family:page-serif}</style></head><body><h1>"
                        + words + " <i>Aa bane</i></h1><p>" + words
                        + " <b>bold</b> <i>slanted</i> <b><i>both</i></b></p></body></html>");
        Set<String> faces = new TreeSet<>();
        try (PDDocument document = Loader.loadPDF(pdf)) {
            for (COSName name : document.getPage(0).getResources().getFontNames()) {
                faces.add(document.getPage(0)
                        .getResources()
                        .getFont(name)
                        .getName()
                        .replaceFirst("^[A-Z]{6}\\+", ""));
            }
        }
        assertThat(faces)
                .contains("SourceSerif4-Semibold", "SourceSans3-Regular", "SourceSans3-Semibold")
                .allMatch(face -> face.startsWith("Source"));
    }
}
