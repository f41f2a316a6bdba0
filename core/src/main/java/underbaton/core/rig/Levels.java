package underbaton.core.rig;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.StringJoiner;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A machine's law between decibels and the values 0–127 of its faders: a table of points read off its own scale, straight
 * between them, or, with no points, the volume law of General MIDI (RP-003), {@code dB = 40·log10(v / 127)}.
 *
 * @param points with rising level and rising value; the first may be at −∞
 */
public record Levels(List<Point> points) {

    /** Full is 0 dB, and a value of 0 is −∞. */
    public static final Levels PUBLISHED = new Levels(List.of());

    private static final int MOST_POINTS = 64;
    private static final int FULL = 127;
    private static final Pattern POINT = Pattern.compile(
            "([-−+]?(?:\\d{1,3}(?:\\.\\d+)?|∞|inf|infinity|oo)|off)\\s*(?:dB)?\\s*[=:\\t ]\\s*(\\d{1,3}(?:\\.\\d)?\\s*%?)",
            Pattern.CASE_INSENSITIVE);

    /**
     * One reading of the scale.
     *
     * @param decibels −∞ to +99
     * @param value 0–127
     */
    public record Point(double decibels, int value) {}

    public Levels {
        points = List.copyOf(points);
        if (points.size() == 1) {
            throw new Refusal(
                    "levels",
                    "One point alone, " + tell(points.get(0).decibels) + ", makes no scale; write a second one at "
                            + "least, with a comma between: the top of the fader, or where it is silent.");
        }
        if (points.size() > MOST_POINTS) {
            throw new Refusal("levels", "A table of levels has 2 to " + MOST_POINTS + " points.");
        }
        for (int i = 0; i < points.size(); i++) {
            Point p = points.get(i);
            if (p.value < 0 || p.value > FULL) {
                throw new Refusal("levels", "A level's value is 0 to 127 of the wire, not " + p.value + ".");
            }
            if (i > 0 && (p.value <= points.get(i - 1).value || p.decibels <= points.get(i - 1).decibels)) {
                throw new Refusal(
                        "levels",
                        "A table of levels rises; the value at " + tell(p.decibels) + " does not lie above the one at "
                                + tell(points.get(i - 1).decibels) + ".");
            }
        }
    }

    /**
     * Reads points as people write them, parted by commas, semicolons or line ends: {@code −∞=0, −40=20, −10=80, 0=100}.
     * Nothing at all is the published law.
     *
     * @param numbering of the machine, which prints the values
     * @throws Refusal quoting the point that cannot be read
     */
    public static Levels of(String typed, Numbering numbering) {
        List<Point> points = new ArrayList<>();
        for (String part : typed.split("[,;\\n]")) {
            if (part.isBlank()) {
                continue;
            }
            Matcher m = POINT.matcher(part.strip());
            if (!m.matches()) {
                throw new Refusal("levels", "“" + part.strip() + "” is no point of a scale; write dB=value: -10=80.");
            }
            points.add(new Point(read(m.group(1)), numbering.wireValue(m.group(2))));
        }
        points.sort(Comparator.comparingDouble(Point::decibels));
        return new Levels(points);
    }

    /** @return the level in dB; −∞ however it is typed */
    static double read(String typed) {
        String text = typed.replace('−', '-').replace(',', '.').toLowerCase(Locale.ROOT);
        return text.matches("[-+]?\\d.*") ? Double.parseDouble(text) : Double.NEGATIVE_INFINITY;
    }

    /** {@code −10 dB}, {@code −∞ dB}, {@code +5 dB}. */
    public static String tell(double decibels) {
        return Amount.plain(decibels) + " dB";
    }

    /** In decibels; minus infinity for a machine without a table. */
    public double lowest() {
        return points.isEmpty() ? Double.NEGATIVE_INFINITY : points.get(0).decibels;
    }

    /** In decibels; 0 for a machine without a table. */
    public double highest() {
        return points.isEmpty() ? 0 : points.get(points.size() - 1).decibels;
    }

    /** The level nearest to silence from which a fade can start or at which it can end before it falls silent, in dB. */
    public double quietest() {
        if (points.isEmpty()) {
            return decibels(0.5);
        }
        return points.get(lowest() == Double.NEGATIVE_INFINITY ? 1 : 0).decibels;
    }

    /**
     * The value that gives a level.
     *
     * @return 0–127, the nearest
     * @throws Refusal when the scale does not reach it
     */
    public int value(double decibels) {
        return (int) Math.round(exact(decibels));
    }

    /**
     * As {@link #value}, before it is rounded.
     *
     * @return 0–127
     */
    public double exact(double decibels) {
        if (decibels > highest() || decibels < lowest()) {
            throw new Refusal(
                    "level",
                    "This scale reaches from " + tell(lowest()) + " to " + tell(highest()) + ", not " + tell(decibels)
                            + ".");
        }
        if (points.isEmpty()) {
            return FULL * Math.pow(10, decibels / 40);
        }
        int above = 0;
        while (points.get(above).decibels < decibels) {
            above++;
        }
        Point high = points.get(above);
        if (high.decibels == decibels) {
            return high.value;
        }
        Point low = points.get(above - 1);
        if (low.decibels == Double.NEGATIVE_INFINITY) {
            throw new Refusal(
                    "level",
                    "Between −∞ and " + tell(high.decibels) + " this scale has no points; add one, or "
                            + "take one of these two.");
        }
        double part = (decibels - low.decibels) / (high.decibels - low.decibels);
        return low.value + part * (high.value - low.value);
    }

    /**
     * The level at a value; beyond the ends of a table the level at that end.
     *
     * @param value 0–127
     * @return dB, −∞ to +99
     */
    public double decibels(double value) {
        if (points.isEmpty()) {
            return value <= 0 ? Double.NEGATIVE_INFINITY : 40 * Math.log10(value / FULL);
        }
        if (value <= points.get(0).value) {
            return lowest();
        }
        int above = 0;
        while (above < points.size() - 1 && points.get(above).value < value) {
            above++;
        }
        Point high = points.get(above);
        Point low = points.get(above - 1);
        if (value >= high.value || low.decibels == Double.NEGATIVE_INFINITY) {
            return value >= high.value ? high.decibels : low.decibels;
        }
        double part = (value - low.value) / (high.value - low.value);
        return low.decibels + part * (high.decibels - low.decibels);
    }

    /** As {@link #of} reads it, in the values that the machine prints; empty for the published law. */
    public String write(Numbering numbering) {
        StringJoiner text = new StringJoiner(", ");
        points.forEach(p -> text.add(Amount.plain(p.decibels) + "=" + numbering.value(p.value)));
        return text.toString();
    }
}
