package underbaton.core.store;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import underbaton.core.midi.Bytes;
import underbaton.core.rig.Refusal;

/** Reads the text of a file that people bring. */
public final class Utf8 {

    private Utf8() {}

    /** The text as a file has it. */
    public static Bytes bytes(String text) {
        return Bytes.copyOf(text.getBytes(StandardCharsets.UTF_8));
    }

    /** Text out of another kind of file, where each byte that is no UTF-8 stands for itself (ISO 8859-1). */
    public static String lenient(Bytes text) {
        String read = new String(text.toArray(), StandardCharsets.UTF_8);
        String kept = read.indexOf('\uFFFD') < 0 ? read : new String(text.toArray(), StandardCharsets.ISO_8859_1);
        return kept.replaceAll("\\p{Cntrl}+", " ").strip();
    }

    /**
     * A table, which other programs save in other encodings: UTF-16 where its mark says so, and what is no UTF-8 as Windows writes it in
     * the west (code page 1252).
     *
     * @param largest in bytes
     */
    public static String table(byte[] file, int largest) {
        if (file.length < 2 || file.length > largest) {
            return text(file, largest);
        }
        boolean little = (file[0] & 0xFF) == 0xFF && (file[1] & 0xFF) == 0xFE;
        boolean big = (file[0] & 0xFF) == 0xFE && (file[1] & 0xFF) == 0xFF;
        if (little || big) {
            return new String(file, 2, file.length - 2, little ? StandardCharsets.UTF_16LE : StandardCharsets.UTF_16BE);
        }
        try {
            return text(file, largest);
        } catch (Refusal noUtf8) {
            return new String(file, Charset.forName("windows-1252"));
        }
    }

    /**
     * @param largest in bytes
     * @return the text, without a byte-order mark
     * @throws Refusal when the file is larger, or no UTF-8
     */
    public static String text(byte[] file, int largest) {
        if (file.length > largest) {
            throw new Refusal(
                    "file",
                    "The file has " + file.length / 1000 + " kB, and none of its kind needs more than " + largest / 1000
                            + "; is it another one?");
        }
        if (file.length == 0) {
            throw new Refusal("file", "Choose a file first; this one is empty.");
        }
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(file))
                    .toString();
            return text.startsWith("\uFEFF") ? text.substring(1) : text;
        } catch (CharacterCodingException otherEncoding) {
            throw new Refusal("file", "The file is not in UTF-8; save it anew with that encoding, as “CSV UTF-8”.");
        }
    }
}
