package org.polyclave.files.source;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.polyclave.study.rules.Problem;

/** Turns the bytes of a table into text, and says what encoding it took them for. */
public final class TextDecoder {
    private TextDecoder() {}

    /** Text, or an empty text with a problem. */
    public static String decode(byte[] bytes, List<Problem> problems) {
        if (startsWith(bytes, 0xFF, 0xFE)) {
            return utf16(bytes, StandardCharsets.UTF_16LE, problems);
        }
        if (startsWith(bytes, 0xFE, 0xFF)) {
            return utf16(bytes, StandardCharsets.UTF_16BE, problems);
        }
        int start = startsWith(bytes, 0xEF, 0xBB) && bytes.length > 2 && (bytes[2] & 0xFF) == 0xBF ? 3 : 0;
        int line = 1;
        for (int i = 0; i < bytes.length; i++) {
            line += bytes[i] == '\n' ? 1 : 0;
            if (bytes[i] == 0) {
                problems.add(Problem.file("Line " + line
                        + " holds a zero byte: this is not a text table. Save it as CSV (UTF-8) and try again."));
                return "";
            }
        }
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes, start, bytes.length - start))
                    .toString();
        } catch (CharacterCodingException malformed) {
            problems.add(
                    Problem.file(
                            "The file is not UTF-8: line " + firstBadLine(bytes)
                                    + " holds a letter in another encoding (perhaps Windows-1252 or Latin-1). Save it as UTF-8 and try again."));
            return "";
        }
    }

    private static String utf16(byte[] bytes, Charset charset, List<Problem> problems) {
        problems.add(new Problem(0, 0, "", "The file is UTF-16; it was read as such.", false));
        return new String(bytes, 2, bytes.length - 2, charset);
    }

    private static boolean startsWith(byte[] bytes, int first, int second) {
        return bytes.length > 1 && (bytes[0] & 0xFF) == first && (bytes[1] & 0xFF) == second;
    }

    private static int firstBadLine(byte[] bytes) {
        int line = 1;
        int from = 0;
        for (int i = 0; i <= bytes.length; i++) {
            if (i == bytes.length || bytes[i] == '\n') {
                String text = new String(bytes, from, i - from, StandardCharsets.UTF_8);
                if (text.indexOf('\uFFFD') >= 0) {
                    return line;
                }
                line++;
                from = i + 1;
            }
        }
        return line;
    }
}
