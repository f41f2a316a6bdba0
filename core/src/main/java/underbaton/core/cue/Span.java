package underbaton.core.cue;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;
import underbaton.core.score.BarMap;
import underbaton.core.score.Score;

/**
 * A length of time, in real time or in music.
 *
 * @param thousandths ms, or thousandths of a beat of the meter that stands there, or of a bar; below 0 for before
 * @param beats whether beats are counted
 * @param bars whether bars are counted
 */
public record Span(int thousandths, boolean beats, boolean bars) {

    public static final Span ZERO = ofMillis(0);

    /** How {@link #of} takes it, as the inside of a pattern with two groups: number and unit. */
    static final String WRITTEN =
            "([-−+]? ?\\d{1,5}(?:[.,]\\d{1,3})?) ?(ms|s(?:ec(?:ond)?s?)?|min(?:ute)?s?|beats?|bars?)";

    private static final int MOST = 3_600_000;
    /** Common practice where nobody has given a tempo or a meter: 120 quarters a minute, four to a bar. */
    private static final long BEAT_WITHOUT_SCORE_NANOS = 500_000_000;

    private static final int BEATS_WITHOUT_SCORE = 4;

    private static final Pattern PATTERN = Pattern.compile(WRITTEN, Pattern.CASE_INSENSITIVE);

    public Span {
        if (Math.abs(thousandths) > MOST) {
            throw new Refusal("time", "A length is at most an hour, or 3,600 beats or bars.");
        }
        if (beats && bars) {
            throw new Refusal("time", "A length is counted in beats or in bars, not in both.");
        }
    }

    /** So many ms, 0 or above. */
    public static Span ofMillis(int ms) {
        return new Span(ms, false, false);
    }

    /**
     * @param typed {@code 3 s}, {@code 200 ms}, {@code 2 min}, {@code 4 beats}, {@code 2 bars}
     * @throws Refusal when it is none
     */
    public static Span of(String typed) {
        Matcher m = PATTERN.matcher(typed.strip());
        if (!m.matches()) {
            throw new Refusal(
                    "time", "“" + typed.strip() + "” is no length; write for example: 3 s, 4 beats, or 2 bars.");
        }
        BigDecimal number =
                new BigDecimal(m.group(1).replace('−', '-').replace(',', '.').replace(" ", ""));
        String unit = m.group(2).toLowerCase(Locale.ROOT);
        BigDecimal factor = new BigDecimal(unit.equals("ms") ? 1 : unit.startsWith("min") ? 60_000 : 1000);
        return new Span(number.multiply(factor).intValue(), unit.startsWith("beat"), unit.startsWith("bar"));
    }

    /**
     * How long it is.
     *
     * @param times of the item's score, where it has one
     * @param fromNanos where it begins, since the item began
     * @return ns
     */
    public long nanos(Optional<Score.Times> times, long fromNanos) {
        if (!beats && !bars) {
            return thousandths * 1_000_000L;
        }
        if (times.isEmpty()) {
            return thousandths * BEAT_WITHOUT_SCORE_NANOS / 1000 * (bars ? BEATS_WITHOUT_SCORE : 1);
        }
        Score.Times known = times.get();
        long from = known.tempi().tick(Math.max(0, fromNanos));
        long ticks = bars ? barTicks(known.bars(), from) : beatTicks(known.bars(), from);
        return known.tempi().nanos(Math.max(0, from + ticks)) - known.tempi().nanos(from);
    }

    private long beatTicks(BarMap map, long from) {
        return Math.round(map.meter(map.position(from).bar()).beatTicks() * (thousandths / 1000.0));
    }

    /** As many ticks as that many whole bars have, counted from the bar it begins in. */
    private long barTicks(BarMap map, long from) {
        int bar = map.position(from).bar();
        int last = Math.max(0, bar + Math.floorDiv(thousandths, 1000));
        long whole = map.tickOfBar(last) - map.tickOfBar(bar);
        long next = map.tickOfBar(last + 1) - map.tickOfBar(last);
        return whole + Math.round(next * (Math.floorMod(thousandths, 1000) / 1000.0));
    }

    /** As {@link #of} takes it. */
    @Override
    public String toString() {
        String number = BigDecimal.valueOf(Math.abs(thousandths), 3)
                .stripTrailingZeros()
                .toPlainString();
        boolean music = beats || bars;
        boolean short_ = !music && thousandths != 0 && Math.abs(thousandths) < 1000;
        String counted = (beats ? " beat" : " bar") + (number.equals("1") ? "" : "s");
        String unit = music ? counted : short_ ? " ms" : " s";
        return (thousandths < 0 ? "−" : "") + (short_ ? Integer.toString(Math.abs(thousandths)) : number) + unit;
    }
}
