package underbaton.core.score;

import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;

/**
 * How many of what make a bar, and in how many beats it is counted: 6/8 in six, or in two.
 *
 * @param beats the upper number, 1–32
 * @param unit 2, 4, 8 or 16
 * @param counted the beats that people count, of equal length; empty for as many as the upper number says
 */
public record Meter(int beats, int unit, OptionalInt counted) {

    public static final Meter COMMON = new Meter(4, 4);

    private static final Pattern WRITTEN = Pattern.compile("(\\d{1,2})\\s*/\\s*(\\d{1,2})(?:\\s+in\\s+(\\d{1,2}))?");
    /** A quarter is so many clocks of MIDI. */
    private static final int CLOCKS = 24;

    public Meter {
        boolean known = unit == 2 || unit == 4 || unit == 8 || unit == 16;
        if (!known || beats < 1 || beats > 32) {
            throw new Refusal("meter", "A meter is 1 to 32 halves, quarters, eighths or sixteenths, such as 6/8.");
        }
        int in = counted.orElse(beats);
        if (in < 1 || beats % in != 0) {
            throw new Refusal(
                    "meter", beats + "/" + unit + " is not counted in " + in + ": its beats are of equal length.");
        }
        counted = in == beats ? OptionalInt.empty() : counted;
    }

    /** Counted as the upper number says. */
    public Meter(int beats, int unit) {
        this(beats, unit, OptionalInt.empty());
    }

    /** @param typed {@code 6/8}, {@code 6/8 in 2} */
    public static Meter of(String typed) {
        Matcher m = WRITTEN.matcher(typed.strip());
        if (!m.matches()) {
            throw new Refusal("meter", "“" + typed + "” is no meter; write it such as 6/8, or 6/8 in 2.");
        }
        int beats = Integer.parseInt(m.group(1));
        return new Meter(
                beats,
                Integer.parseInt(m.group(2)),
                m.group(3) == null ? OptionalInt.empty() : OptionalInt.of(Integer.parseInt(m.group(3))));
    }

    /** The same, counted by beats of so many MIDI clocks (24 a quarter), where they make up the bar; else as it is. */
    public Meter countedBy(int clocks) {
        int bar = CLOCKS * 4 * beats / unit;
        boolean fits = clocks > 0 && bar % clocks == 0 && bar / clocks < beats && beats % (bar / clocks) == 0;
        return fits ? new Meter(beats, unit, OptionalInt.of(bar / clocks)) : this;
    }

    /** How many beats people count. */
    public int countedBeats() {
        return counted.orElse(beats);
    }

    /** The MIDI clocks of a beat. */
    public int clocks() {
        return CLOCKS * 4 * beats / unit / countedBeats();
    }

    /** Of a beat as people count. */
    public int beatTicks() {
        return barTicks() / countedBeats();
    }

    /** How long a bar of it is, in ticks. */
    public int barTicks() {
        return beats * (4 * BeatUnit.QUARTER_TICKS / unit);
    }

    @Override
    public String toString() {
        return beats + "/" + unit + (counted.isEmpty() ? "" : " in " + counted.getAsInt());
    }
}
