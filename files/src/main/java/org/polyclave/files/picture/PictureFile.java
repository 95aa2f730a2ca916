package org.polyclave.files.picture;

import org.jspecify.annotations.Nullable;

/**
 * A picture that may be kept: decoded and encoded again, so that nothing but the picture is in it. PNG, JPEG and WebP are
 * told by their content, never by their name; WebP is kept as PNG where it has transparent parts, else as JPEG. Drawings
 * (SVG) keep shapes and texts only. Reading what was written here gives the same bytes again.
 *
 * @param mediaType {@code image/png}, {@code image/jpeg} or {@code image/svg+xml}
 * @param thumbnail at most 320 pixels wide and high; empty for a drawing, which is small at any size
 * @param place coordinates at which it was taken, in degrees: "51.50000, -2.10000"; null if the file does not say
 */
public record PictureFile(
        String mediaType,
        int width,
        int height,
        byte[] bytes,
        byte[] thumbnail,
        @Nullable String place) {
    /** Larger files are refused. */
    public static final int MOST_BYTES = 20 << 20;
    /** Larger pictures are refused before they are decoded. */
    public static final long MOST_PIXELS = 100_000_000;

    /** What cannot be kept, and what to do about it. */
    public static final class Refused extends Exception {
        private static final long serialVersionUID = 1;

        Refused(String sentence) {
            super(sentence);
        }

        public String sentence() {
            return String.valueOf(getMessage());
        }
    }

    /** Reads and cleans a file. Memory: four bytes a pixel, twice. */
    public static PictureFile of(byte[] bytes) throws Refused {
        if (bytes.length == 0) {
            throw new Refused("The file is empty. Choose the picture again.");
        }
        if (bytes.length > MOST_BYTES) {
            throw new Refused("The picture has " + (bytes.length >> 20)
                    + " MB; up to 20 MB can be kept. Save it smaller, or cut it to what it is to show.");
        }
        if (starts(bytes, 0, 0x89, 'P', 'N', 'G')) {
            return Raster.of(bytes, Raster.Kind.PNG);
        }
        if (starts(bytes, 0, 0xFF, 0xD8, 0xFF)) {
            return Raster.of(bytes, Raster.Kind.JPEG);
        }
        if (starts(bytes, 0, 'R', 'I', 'F', 'F') && starts(bytes, 8, 'W', 'E', 'B', 'P')) {
            return Raster.of(bytes, Raster.Kind.WEBP);
        }
        if (Drawing.looksLikeOne(bytes)) {
            return Drawing.of(bytes);
        }
        throw new Refused(
                "This is not a PNG, JPEG, WebP or SVG picture, even if its name says so. Save it as one of these.");
    }

    private static boolean starts(byte[] bytes, int from, int... head) {
        for (int i = 0; i < head.length; i++) {
            if (from + i >= bytes.length || (bytes[from + i] & 0xFF) != head[i]) {
                return false;
            }
        }
        return true;
    }
}
