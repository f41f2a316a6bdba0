package underbaton.web.page;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.zip.CRC32C;
import underbaton.core.file.StoredForm;
import underbaton.core.rig.Refusal;

/** A mark of what a form was filled with, so that keeping it does not undo what somebody else has kept meanwhile. */
public final class Fingerprint {

    private Fingerprint() {}

    /** @param part a part of a show */
    public static String of(Object part) {
        CRC32C sum = new CRC32C();
        sum.update(StoredForm.write(part).getBytes(StandardCharsets.UTF_8));
        return HexFormat.of().toHexDigits((int) sum.getValue());
    }

    /**
     * @param was the mark that came with the form; empty from who sends none
     * @param now the part as it is
     * @throws Refusal when it is another by now
     */
    public static void require(String was, Object now, String what) {
        if (was != null && !was.isEmpty() && !was.equals(of(now))) {
            throw new Refusal(
                    "",
                    "Somebody changed " + what
                            + " while this form was open, so it was not kept. What you typed is still "
                            + "here: copy it, reload the page, and look at what is there now.");
        }
    }
}
