package org.polyclave.print.pdf;

import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PDFontSupplier;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.svgsupport.BatikSVGDrawer;
import com.openhtmltopdf.util.XRLog;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Objects;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;

/** Makes a PDF of a page of our own making: well-formed HTML with its style inside, in typefaces that ship with us. */
public final class PdfPage {
    private record Face(String family, String file, int weight, FontStyle style) {}

    /** Bold is the semibold of the screens. */
    private static final List<Face> FACES = List.of(
            new Face("page-serif", "SourceSerif4-Regular", 400, FontStyle.NORMAL),
            new Face("page-serif", "SourceSerif4-It", 400, FontStyle.ITALIC),
            new Face("page-serif", "SourceSerif4-Semibold", 600, FontStyle.NORMAL),
            new Face("page-serif", "SourceSerif4-SemiboldIt", 600, FontStyle.ITALIC),
            new Face("page-serif", "SourceSerif4-Semibold", 700, FontStyle.NORMAL),
            new Face("page-serif", "SourceSerif4-SemiboldIt", 700, FontStyle.ITALIC),
            new Face("page-sans", "SourceSans3-Regular", 400, FontStyle.NORMAL),
            new Face("page-sans", "SourceSans3-It", 400, FontStyle.ITALIC),
            new Face("page-sans", "SourceSans3-Semibold", 600, FontStyle.NORMAL),
            new Face("page-sans", "SourceSans3-SemiboldIt", 600, FontStyle.ITALIC),
            new Face("page-sans", "SourceSans3-Semibold", 700, FontStyle.NORMAL),
            new Face("page-sans", "SourceSans3-SemiboldIt", 700, FontStyle.ITALIC));

    static {
        XRLog.setLoggingEnabled(false);
    }

    private PdfPage() {}

    /**
     * @param html well-formed; the families are {@code page-serif} and {@code page-sans}, because a renderer takes
     *     {@code serif} for its own; nothing is loaded from elsewhere
     */
    public static byte[] of(String html) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PdfRendererBuilder builder = new PdfRendererBuilder();
        try (PDDocument document = new PDDocument();
                BatikSVGDrawer drawings = new BatikSVGDrawer()) {
            builder.usePDDocument(document);
            for (Face face : FACES) {
                builder.useFont(
                        new OpenedFace(document, face.file()), face.family(), face.weight(), face.style(), true);
            }
            // Pictures stand in the page itself.
            builder.useUriResolver((base, uri) -> uri.startsWith("data:") ? uri : null);
            builder.withHtmlContent(html, null).toStream(out);
            builder.useSVGDrawer(drawings);
            builder.run();
        } catch (IOException unwritable) {
            throw new UncheckedIOException("A page cannot be printed", unwritable);
        }
        return out.toByteArray();
    }

    /** A typeface, opened when it is needed. Without ligatures: of "ft" as one letter a reader who copies it gets nothing. */
    private static final class OpenedFace extends PDFontSupplier {
        private final PDDocument document;
        private final String file;

        OpenedFace(PDDocument document, String file) {
            super(null);
            this.document = document;
            this.file = file;
        }

        @Override
        public PDFont supply() {
            try (InputStream in = Objects.requireNonNull(
                    PdfPage.class.getResourceAsStream("/fonts/" + file + ".ttf"),
                    "The typeface " + file + " is missing")) {
                TrueTypeFont font = new TTFParser().parse(new RandomAccessReadBuffer(in));
                font.setEnableGsub(false);
                return PDType0Font.load(document, font, true);
            } catch (IOException damaged) {
                throw new UncheckedIOException("The typeface " + file + " cannot be read", damaged);
            }
        }
    }

    /** How many pages a file has. */
    public static int count(byte[] pdf) {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return document.getNumberOfPages();
        } catch (IOException damaged) {
            throw new UncheckedIOException("A page that was just made cannot be read", damaged);
        }
    }
}
