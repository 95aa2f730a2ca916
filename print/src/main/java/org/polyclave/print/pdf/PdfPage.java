package org.polyclave.print.pdf;

import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.svgsupport.BatikSVGDrawer;
import com.openhtmltopdf.util.XRLog;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Objects;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;

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

    /** @param html well-formed; the families are {@code page-serif} and {@code page-sans}, because a renderer takes {@code serif} for its own; nothing is loaded from elsewhere */
    public static byte[] of(String html) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PdfRendererBuilder builder = new PdfRendererBuilder();
        FACES.forEach(
                face -> builder.useFont(() -> open(face.file()), face.family(), face.weight(), face.style(), true));
        // Pictures stand in the page itself.
        builder.useUriResolver((base, uri) -> uri.startsWith("data:") ? uri : null);
        builder.withHtmlContent(html, null).toStream(out);
        try (BatikSVGDrawer drawings = new BatikSVGDrawer()) {
            builder.useSVGDrawer(drawings);
            builder.run();
        } catch (IOException unwritable) {
            throw new UncheckedIOException("A page cannot be printed", unwritable);
        }
        return out.toByteArray();
    }

    /** How many pages a file has. */
    public static int count(byte[] pdf) {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return document.getNumberOfPages();
        } catch (IOException damaged) {
            throw new UncheckedIOException("A page that was just made cannot be read", damaged);
        }
    }

    private static InputStream open(String face) {
        return Objects.requireNonNull(
                PdfPage.class.getResourceAsStream("/fonts/" + face + ".ttf"), "The typeface " + face + " is missing");
    }
}
