package underbaton.core.score;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;

/**
 * How many of what make a bar.
 *
 * @param beats 1–32
 * @param unit 2, 4, 8 or 16
 */
public record Meter(int beats, int unit) {

    public static final Meter COMMON = new Meter(4, 4);

    private static final Pattern WRITTEN = Pattern.compile("(\\d{1,2})\\s*/\\s*(\\d{1,2})");

    public Meter {
        boolean known = unit == 2 || unit == 4 || unit == 8 || unit == 16;
        if (!known || beats < 1 || beats > 32) {
            throw new Refusal("meter", "A meter is 1 to 32 halves, quarters, eighths or sixteenths, such as 6/8.");
        }
    }

    /** @param typed {@code 6/8} */
    public static Meter of(String typed) {
        Matcher m = WRITTEN.matcher(typed.strip());
        if (!m.matches()) {
            throw new Refusal("meter", "“" + typed + "” is no meter; write it such as 6/8.");
        }
        return new Meter(Integer.parseInt(m.group(1)), Integer.parseInt(m.group(2)));
    }

    public int beatTicks() {
        return 4 * BeatUnit.QUARTER_TICKS / unit;
    }

    public int barTicks() {
        return beats * beatTicks();
    }

    @Override
    public String toString() {
        return beats + "/" + unit;
    }
}
