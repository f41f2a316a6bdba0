package underbaton.core.score;

import java.math.BigDecimal;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;

/**
 * A slot as long as a film: within it stands a tempo of its own, so that the film takes the same number of bars whatever
 * becomes of the tempi around it.
 *
 * @param bar where it begins
 * @param millis length of the film, 1–86,400,000 ms
 * @param tempo within the slot
 * @param name of the film; may be empty
 */
public record Film(int bar, long millis, Tempo tempo, String name) {

    /** Common practice: at 120 a bar of 4/4 is two seconds. */
    public static final Tempo USUAL = Tempo.quarters(120);

    private static final long LONGEST_MILLIS = 86_400_000;
    private static final Pattern WRITTEN = Pattern.compile("film (\\d{1,4}):([0-5]\\d)(?:\\.(\\d{1,3}))?(?: at ("
            + Tempo.WRITTEN + "))?(?: (" + NameInWords.QUOTED + "|.{1,60}))?");

    public Film {
        if (bar < 1) {
            throw new Refusal("film", "A film begins at bar 1 or later.");
        }
        if (millis < 1 || millis > LONGEST_MILLIS) {
            throw new Refusal("film", "A film lasts from 0:00.001 to 24 hours.");
        }
        name = Refusal.requireShort("film", name.strip(), 60);
    }

    static boolean isWritten(String says) {
        return WRITTEN.matcher(says).matches();
    }

    /** @param says {@code film 4:37 The crossing}, {@code film 0:30.5 at quarter = 100} */
    static Film of(int bar, String says) {
        Matcher m = WRITTEN.matcher(says);
        if (!m.matches()) {
            throw new IllegalArgumentException(says);
        }
        String fraction = m.group(3) == null ? "0" : m.group(3);
        long millis = (Long.parseLong(m.group(1)) * 60 + Long.parseLong(m.group(2))) * 1000
                + new BigDecimal("0." + fraction).movePointRight(3).longValueExact();
        Tempo tempo = m.group(4) == null ? USUAL : Tempo.of(m.group(4));
        String name = m.group(m.groupCount());
        return new Film(bar, millis, tempo, NameInWords.read(name));
    }

    /** Length of the slot in ticks: the first whole tick at which the film is over. */
    long ticks() {
        Fraction ticks = Fraction.of(millis * 1_000_000L).dividedBy(tempo.nanosPerTick());
        long nearest = ticks.rounded();
        return Fraction.of(nearest).compareTo(ticks) < 0 ? nearest + 1 : nearest;
    }

    /** {@code 4:37}, {@code 0:30.5}. */
    public String length() {
        BigDecimal seconds = BigDecimal.valueOf(millis % 60_000, 3).stripTrailingZeros();
        String text = seconds.scale() < 0 ? seconds.setScale(0).toPlainString() : seconds.toPlainString();
        return millis / 60_000 + ":" + (millis % 60_000 < 10_000 ? "0" : "") + text;
    }

    /** {@code 61 film 4:37 The crossing}. */
    @Override
    public String toString() {
        String other = tempo.equals(USUAL) ? "" : " at " + tempo;
        return (bar + " film " + length() + other + " " + NameInWords.write(name)).strip();
    }
}
