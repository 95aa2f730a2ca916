package org.polyclave.files.picture;

/** Looks at what a JPEG file is made of (ITU-T T.81, annex B) without decoding it. */
final class JpegSegments {
    private static final int START_OF_SCAN = 0xDA;
    private static final int APP0 = 0xE0;
    private static final int END = 0xD9;

    private JpegSegments() {}

    /** Whether the file holds nothing but the picture: no comment, no Exif, nothing behind its end. */
    static boolean onlyPicture(byte[] bytes) {
        int at = 2;
        while (at + 4 <= bytes.length && (bytes[at] & 0xFF) == 0xFF) {
            int marker = bytes[at + 1] & 0xFF;
            if (marker == START_OF_SCAN) {
                return endsWithPicture(bytes, at + 2);
            }
            boolean table = marker == 0xDB || marker == 0xC4 || marker == 0xDD || marker == 0xC0 || marker == 0xC2;
            if (!table && marker != APP0) {
                return false;
            }
            int length = ((bytes[at + 2] & 0xFF) << 8) | (bytes[at + 3] & 0xFF);
            if (marker == APP0 && length != 16) {
                // A longer one carries a thumbnail, which may show what was cut off.
                return false;
            }
            at += 2 + length;
        }
        return false;
    }

    /** From the first scan on: only further scans and their tables, then the end of the file. */
    private static boolean endsWithPicture(byte[] bytes, int from) {
        for (int i = from; i + 1 < bytes.length; i++) {
            int marker = (bytes[i] & 0xFF) == 0xFF ? bytes[i + 1] & 0xFF : 0;
            if (marker == END) {
                return i + 2 == bytes.length;
            }
            if (marker >= APP0 && marker != 0xFF) {
                return false;
            }
        }
        return false;
    }
}
