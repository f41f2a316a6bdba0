package underbaton.core.score;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;

/**
 * A span that repeats until it is released.
 *
 * @param bar its first bar, 1 or above
 * @param bars how many bars, 1–100
 * @param leave where it is left, once released
 * @param most passes after which it is left by itself, 2–999
 */
public record Vamp(int bar, int bars, Leave leave, int most) {

    /** Where the music goes on behind the vamp once it was released. */
    public enum Leave {
        END("at the end"),
        BAR("at the bar"),
        AT_ONCE("at once");

        private final String words;

        Leave(String words) {
            this.words = words;
        }

        /** As it is typed. */
        public String words() {
            return words;
        }
    }

    public static final int USUAL_MOST = 99;

    private static final Pattern WRITTEN = Pattern.compile(
            "vamp (\\d{1,3}) bars?(?:,? leave (at the end|at the bar|at once))?(?:,? at most (\\d{1,3})(?: times)?)?");

    public Vamp {
        if (bar < 1 || bars < 1 || bars > 100) {
            throw new Refusal("vamp", "A vamp is 1 to 100 bars long.");
        }
        if (most < 2 || most > 999) {
            throw new Refusal("vamp", "A vamp is played at most 2 to 999 times.");
        }
    }

    static boolean isWritten(String says) {
        return WRITTEN.matcher(says.toLowerCase(Locale.ROOT)).matches();
    }

    /** @param says {@code vamp 3 bars, leave at the bar, at most 8 times}; without the middle it is left at the end */
    static Vamp of(int bar, String says) {
        Matcher m = WRITTEN.matcher(says.toLowerCase(Locale.ROOT));
        if (!m.matches()) {
            throw new IllegalArgumentException(says);
        }
        Leave leave = Leave.END;
        for (Leave candidate : Leave.values()) {
            leave = candidate.words.equals(m.group(2)) ? candidate : leave;
        }
        int most = m.group(3) == null ? USUAL_MOST : Integer.parseInt(m.group(3));
        return new Vamp(bar, Integer.parseInt(m.group(1)), leave, most);
    }

    /** The first bar behind it. */
    public int after() {
        return bar + bars;
    }

    /** {@code 54 vamp 3 bars, leave at the bar, at most 8 times}. */
    @Override
    public String toString() {
        String often = most == USUAL_MOST ? "" : ", at most " + most + " times";
        return bar + " vamp " + bars + (bars == 1 ? " bar" : " bars") + ", leave " + leave.words + often;
    }
}
