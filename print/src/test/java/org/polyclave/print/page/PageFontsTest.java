package org.polyclave.print.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.Base64;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.fontbox.ttf.CmapLookup;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.junit.jupiter.api.Test;

class PageFontsTest {
    private static final Pattern FACE =
            Pattern.compile("font-weight:(\\d+);font-style:(\\w+);src:url\\(data:font/ttf;base64,([^)]*)\\)");

    @Test
    void everyFaceHasEveryLetterOfThePageAndNoLigatureToReplaceItByNothing() throws IOException {
        String text = "Tarnella × intermixta, Mårten: flüchtig – 2 µm";
        Matcher faces = FACE.matcher(PageFonts.serif(text));
        int found = 0;
        while (faces.find()) {
            found++;
            byte[] file = Base64.getDecoder().decode(faces.group(3));
            try (TrueTypeFont font = new TTFParser(true).parse(new RandomAccessReadBuffer(file))) {
                assertThat(font.getTableMap()).doesNotContainKeys("GSUB", "GPOS");
                CmapLookup letters = font.getUnicodeCmapLookup();
                (text + "abcdefghijklmnopqrstuvwxyz0123456789()")
                        .codePoints()
                        .forEach(letter -> assertThat(letters.getGlyphId(letter))
                                .as("%s in %s %s", Character.toString(letter), faces.group(1), faces.group(2))
                                .isPositive());
            }
            assertThat(file.length).isLessThan(60_000);
        }
        assertThat(found)
                .isEqualTo(List.of("regular", "italic", "semibold", "semibold italic")
                        .size());
    }
}
