package org.polyclave.files.picture;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import java.util.Base64;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

final class PictureFileTest {
    private static final String WEBP =
            "UklGRjgAAABXRUJQVlA4ICwAAADwAQCdASoIAAYAAgA0JaACdLoB+AAEgwAA/ug4v/kF6t823b/56ZrzB/hYAA==";

    private static byte[] picture(String format, int width, int height) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < width; x++) {
            for (int y = 0; y < height; y++) {
                image.setRGB(x, y, x < width / 2 ? 0xC05020 : 0x2050C0);
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, format, out);
        return out.toByteArray();
    }

    /** A JPEG that says it lies on its side and was taken at 51° 30' N, 2° 6' W (Exif 2.3, 4.6). */
    private static byte[] photograph() throws IOException {
        ByteBuffer tiff = ByteBuffer.allocate(200);
        tiff.put("MM".getBytes(UTF_8)).putShort((short) 42).putInt(8);
        tiff.putShort((short) 2);
        tiff.putShort((short) 0x0112)
                .putShort((short) 3)
                .putInt(1)
                .putShort((short) 6)
                .putShort((short) 0);
        tiff.putShort((short) 0x8825).putShort((short) 4).putInt(1).putInt(38);
        tiff.putInt(0);
        tiff.putShort((short) 4);
        tiff.putShort((short) 1).putShort((short) 2).putInt(2).putInt('N' << 24);
        tiff.putShort((short) 2).putShort((short) 5).putInt(3).putInt(92);
        tiff.putShort((short) 3).putShort((short) 2).putInt(2).putInt('W' << 24);
        tiff.putShort((short) 4).putShort((short) 5).putInt(3).putInt(116);
        tiff.putInt(0);
        for (int n : new int[] {51, 1, 30, 1, 0, 1, 2, 1, 6, 1, 0, 1}) {
            tiff.putInt(n);
        }
        byte[] plain = picture("jpeg", 40, 20);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(plain, 0, 2);
        out.write(new byte[] {(byte) 0xFF, (byte) 0xE1});
        out.write(ByteBuffer.allocate(2)
                .putShort((short) (2 + 6 + tiff.position()))
                .array());
        out.write("Exif\0\0".getBytes(UTF_8));
        out.write(tiff.array(), 0, tiff.position());
        out.write(plain, 2, plain.length - 2);
        return out.toByteArray();
    }

    private static BufferedImage decoded(PictureFile file) throws IOException {
        return ImageIO.read(new ByteArrayInputStream(file.bytes()));
    }

    @Test
    void aPhotographStandsUprightAndItsFileSaysNothingMore() throws Exception {
        PictureFile kept = PictureFile.of(photograph());

        assertThat(kept.mediaType()).isEqualTo("image/jpeg");
        assertThat(new int[] {kept.width(), kept.height()}).containsExactly(20, 40);
        assertThat(kept.place()).isEqualTo("51.50000, -2.10000");
        assertThat(new String(kept.bytes(), UTF_8)).doesNotContain("Exif");
        BufferedImage image = decoded(kept);
        assertThat(image.getRGB(10, 5) >> 16 & 0xFF)
                .as("what was at the left is at the top")
                .isGreaterThan(150);
        assertThat(image.getRGB(10, 35) & 0xFF)
                .as("what was at the right is below")
                .isGreaterThan(150);
    }

    @Test
    void whatWasCleanedOnceStaysAsItIs() throws Exception {
        for (byte[] file : new byte[][] {photograph(), picture("png", 500, 300), picture("jpeg", 30, 30)}) {
            PictureFile once = PictureFile.of(file);
            PictureFile twice = PictureFile.of(once.bytes());
            assertThat(twice.bytes()).isEqualTo(once.bytes());
            assertThat(twice.place()).isNull();
        }
        PictureFile drawing = PictureFile.of(drawing("<path d='M0 0L5 5' stroke='#222'/><text x='1'>5 &lt; 6</text>"));
        assertThat(PictureFile.of(drawing.bytes()).bytes()).isEqualTo(drawing.bytes());
    }

    @Test
    void aCommentOrWhatStandsBehindTheEndMakesAJpegBeWrittenAnew() throws Exception {
        byte[] plain = picture("jpeg", 30, 30);
        byte[] more = Arrays.copyOf(plain, plain.length + 9);
        System.arraycopy("secretive".getBytes(UTF_8), 0, more, plain.length, 9);

        assertThat(PictureFile.of(plain).bytes()).isEqualTo(plain);
        assertThat(new String(PictureFile.of(more).bytes(), UTF_8)).doesNotContain("secretive");
    }

    @Test
    void thumbnailsAreSmallAndWebpIsRead() throws Exception {
        PictureFile large = PictureFile.of(picture("png", 1000, 500));
        BufferedImage small = ImageIO.read(new ByteArrayInputStream(large.thumbnail()));
        assertThat(new int[] {small.getWidth(), small.getHeight()}).containsExactly(320, 160);

        PictureFile webp = PictureFile.of(Base64.getDecoder().decode(WEBP));
        assertThat(webp.mediaType()).isEqualTo("image/jpeg");
        assertThat(decoded(webp).getRGB(4, 3) >> 16 & 0xFF).isBetween(180, 204);
    }

    private static byte[] drawing(String inner) {
        return ("<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' viewBox='0 0 40 30'>"
                        + inner + "</svg>")
                .getBytes(UTF_8);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<script>alert(1)</script>",
                "<g onload='alert(1)'/>",
                "<a href='javascript:alert(1)'><path d='M0 0'/></a>",
                "<foreignObject><p xmlns='http://www.w3.org/1999/xhtml'>alert</p></foreignObject>",
                "<image href='http://alert.invalid/x.png'/>",
                "<use href='http://alert.invalid/x.svg#a'/>",
                "<use xlink:href='data:alert'/>",
                "<use href='#alert'/><symbol id='alerts'/>",
                "<style>@import 'http://alert.invalid'</style>",
                "<path d='M0 0' style='background:url(http://alert.invalid)'/>",
                "<path d='M0 0' fill='url( http://alert.invalid/#a )'/>",
                "<path d='M0 0' fill='url(#a) url(http://alert.invalid)'/>",
                "<animate attributeName='href' to='javascript:alert(1)'/>",
                "<?xml-stylesheet href='http://alert.invalid'?>",
                "<!-- alert -->"
            })
    void nothingInADrawingRunsLoadsOrLinks(String inner) throws Exception {
        PictureFile kept = PictureFile.of(drawing(inner + "<circle r='3' fill='url(#a)'/>"));

        assertThat(new String(kept.bytes(), UTF_8))
                .doesNotContain("alert")
                .contains("<circle")
                .contains("url(#a)");
        assertThat(new int[] {kept.width(), kept.height()}).containsExactly(40, 30);
    }

    @Test
    void whatIsNoPictureIsRefusedInWords() throws Exception {
        refused(
                "<!DOCTYPE svg [<!ENTITY x SYSTEM 'file:///etc/passwd'>]><svg xmlns='http://www.w3.org/2000/svg'>&x;</svg>"
                        .getBytes(UTF_8),
                "well-formed");
        refused("taxon,colour\na,b\n".getBytes(UTF_8), "not a PNG, JPEG, WebP or SVG");
        refused(new byte[0], "empty");
        refused(new byte[PictureFile.MOST_BYTES + 1], "20 MB");
        byte[] png = picture("png", 60, 60);
        refused(Arrays.copyOf(png, png.length / 2), "damaged");
        byte[] huge = png.clone();
        ByteBuffer.wrap(huge).putInt(16, 20_000).putInt(20, 20_000);
        refused(huge, "400 megapixels");
    }

    /** A chunk that says it holds two gigabytes is refused before anybody makes room for them. */
    @Test
    void aSmallFileThatAsksForMuchMemoryIsRefused() throws Exception {
        byte[] png = picture("png", 60, 60);
        ByteBuffer.wrap(png).putInt(33, Integer.MAX_VALUE - 64);
        byte[] webp = Base64.getDecoder().decode(WEBP);
        ByteBuffer.wrap(webp).order(ByteOrder.LITTLE_ENDIAN).putInt(16, Integer.MAX_VALUE - 64);
        var threads = (com.sun.management.ThreadMXBean) ManagementFactory.getThreadMXBean();
        for (byte[] file : new byte[][] {png, webp}) {
            long before = threads.getCurrentThreadAllocatedBytes();
            refused(file, "damaged or cut off");
            assertThat(threads.getCurrentThreadAllocatedBytes() - before).isLessThan(64 << 20);
        }
    }

    /** Whatever stands in a file: a picture or a refusal, and nothing else. */
    @Test
    void damagedFilesNeverBreakTheReader() throws Exception {
        Random random = new Random(11);
        byte[][] files = {
            photograph(), picture("png", 60, 60), Base64.getDecoder().decode(WEBP), drawing("<g/>")
        };
        for (int n = 0; n < 400; n++) {
            byte[] damaged = files[n % files.length].clone();
            for (int k = 0; k < 4; k++) {
                damaged[random.nextInt(damaged.length)] = (byte) random.nextInt(256);
            }
            try {
                assertThat(PictureFile.of(damaged).width()).isPositive();
            } catch (PictureFile.Refused refused) {
                assertThat(refused.sentence()).endsWith(".");
            }
        }
    }

    private static void refused(byte[] bytes, String words) {
        assertThatExceptionOfType(PictureFile.Refused.class)
                .isThrownBy(() -> PictureFile.of(bytes))
                .satisfies(r -> assertThat(r.sentence()).contains(words));
    }
}
