package org.polyclave.files.picture;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/**
 * Looks whether the chunks of a PNG (ISO/IEC 15948, 5.3) or WebP file (RFC 9649, 2.3) end within it. Readers make room for
 * as much as a chunk says it holds, so that a file of a few bytes could ask for two gigabytes.
 */
final class Chunks {
    private static final int PNG_SIGNATURE = 8;
    private static final int RIFF_HEADER = 12;

    private Chunks() {}

    static boolean endWithin(byte[] bytes, Raster.Kind kind) {
        return switch (kind) {
            case PNG -> walk(ByteBuffer.wrap(bytes), PNG_SIGNATURE, 0, 12);
            case WEBP -> walk(ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN), RIFF_HEADER, 4, 8);
            case JPEG -> true;
        };
    }

    /**
     * @param length where in a chunk its length stands
     * @param around bytes of a chunk beside those that its length counts
     */
    private static boolean walk(ByteBuffer bytes, int first, int length, int around) {
        long at = first;
        while (at + length + Integer.BYTES <= bytes.limit()) {
            long size = bytes.getInt((int) at + length) & 0xFFFFFFFFL;
            if (at + around + size > bytes.limit()) {
                return false;
            }
            at += around + size;
            // WebP pads chunks to whole pairs of bytes.
            at += bytes.order() == ByteOrder.LITTLE_ENDIAN ? size % 2 : 0;
        }
        return true;
    }
}
