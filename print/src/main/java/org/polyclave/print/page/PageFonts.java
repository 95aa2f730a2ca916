package org.polyclave.print.page;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Base64;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TTFSubsetter;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;

/** The typefaces of the product inside a page that stands alone: of each only the letters that the page uses. */
public final class PageFonts {
    private record Face(String file, int weight, String style) {}

    private static final List<Face> SERIF = List.of(
            new Face("SourceSerif4-Regular", 400, "normal"),
            new Face("SourceSerif4-It", 400, "italic"),
            new Face("SourceSerif4-Semibold", 600, "normal"),
            new Face("SourceSerif4-SemiboldIt", 600, "italic"));
    /** Figures, and what templates say themselves. */
    private static final Set<Integer> ALWAYS =
            IntStream.rangeClosed(' ', '~').boxed().collect(Collectors.toUnmodifiableSet());

    /** No table of ligatures: their letters are left out, and with the table "fl" would be nothing at all. */
    private static final List<String> TABLES =
            List.of("head", "hhea", "hmtx", "maxp", "loca", "glyf", "cmap", "OS/2", "name", "post");

    private PageFonts() {}

    /** Style rules that define the family {@code page-serif} for a text. */
    public static String serif(String text) {
        Set<Integer> letters = text.codePoints().boxed().collect(Collectors.toSet());
        letters.addAll(ALWAYS);
        return SERIF.stream()
                .map(face -> "@font-face{font-family:page-serif;font-weight:" + face.weight() + ";font-style:"
                        + face.style() + ";src:url(data:font/ttf;base64,"
                        + Base64.getEncoder().encodeToString(subset(face.file(), letters)) + ")}")
                .collect(Collectors.joining("\n"));
    }

    private static byte[] subset(String face, Set<Integer> letters) {
        try (InputStream file = Objects.requireNonNull(
                        PageFonts.class.getResourceAsStream("/fonts/" + face + ".ttf"),
                        "The typeface " + face + " is missing");
                TrueTypeFont font = new TTFParser(true).parse(new RandomAccessReadBuffer(file))) {
            TTFSubsetter subsetter = new TTFSubsetter(font, TABLES);
            subsetter.addAll(letters);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            subsetter.writeToStream(out);
            return out.toByteArray();
        } catch (IOException damaged) {
            throw new UncheckedIOException("The typeface " + face + " cannot be read", damaged);
        }
    }
}
