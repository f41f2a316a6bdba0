package underbaton.web.kernel;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.Optional;
import java.util.zip.CRC32C;
import underbaton.core.rig.Refusal;
import underbaton.core.store.StoredForm;

/** A mark of what a form was filled with, so that keeping it does not undo what somebody else has kept meanwhile. */
public final class Fingerprint {

    private Fingerprint() {}

    /** @param part a part of a show */
    public static String of(Object part) {
        CRC32C sum = new CRC32C();
        sum.update(StoredForm.write(part).getBytes(StandardCharsets.UTF_8));
        return HexFormat.of().toHexDigits((int) sum.getValue());
    }

    /** The mark of a part that may not be there. */
    public static String of(Optional<?> part) {
        return part.map(p -> of((Object) p)).orElse("none");
    }

    /**
     * @param was the mark that came with the form; empty from who sends none
     * @param now the part as it is
     * @throws Refusal when it is another by now
     */
    public static void require(String was, Object now, String what) {
        requireMark(was, of(now), what);
    }

    /**
     * @param was the mark that came with the form; empty from who sends none
     * @param now the part as it is, if it is there
     * @throws Refusal when it is another by now, gone, or there while it was not
     */
    public static void require(String was, Optional<?> now, String what) {
        requireMark(was, of(now), what);
    }

    /** The same with the marks of both. */
    public static void requireMark(String was, String now, String what) {
        if (was != null && !was.isEmpty() && !was.equals(now)) {
            throw new Refusal(
                    "",
                    "Somebody changed " + what
                            + " while this form was open, so it was not kept. What you typed is still "
                            + "here: copy it, reload the page, and look at what is there now.");
        }
    }
}
