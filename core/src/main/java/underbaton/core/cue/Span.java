package underbaton.core.cue;

import java.math.BigDecimal;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

/**
 * A length of time, in real time or in music.
 *
 * @param thousandths ms, or thousandths of a beat of the meter that stands there; below 0 for before
 * @param beats whether beats are counted
 */
public record Span(int thousandths, boolean beats) {

    public static final Span ZERO = new Span(0, false);

    /** How {@link #of} takes it, as the inside of a pattern with two groups: number and unit. */
    static final String WRITTEN = "([-−+]? ?\\d{1,5}(?:[.,]\\d{1,3})?) ?(ms|s|min|beats?)";

    private static final int MOST = 3_600_000;
    /** Common practice where nobody has given a tempo: 120 quarters a minute. */
    private static final long BEAT_WITHOUT_SCORE_NANOS = 500_000_000;

    private static final Pattern PATTERN = Pattern.compile(WRITTEN);

    public Span {
        if (Math.abs(thousandths) > MOST) {
            throw new Refusal("time", "A length is at most an hour, or 3,600 beats.");
        }
    }

    public static Span ofMillis(int ms) {
        return new Span(ms, false);
    }

    /**
     * @param typed {@code 3 s}, {@code 200 ms}, {@code 2 min}, {@code 4 beats}
     * @throws Refusal when it is none
     */
    public static Span of(String typed) {
        Matcher m = PATTERN.matcher(typed.strip());
        if (!m.matches()) {
            throw new Refusal("time", "“" + typed.strip() + "” is no length; write for example: 3 s, or 4 beats.");
        }
        BigDecimal number =
                new BigDecimal(m.group(1).replace('−', '-').replace(',', '.').replace(" ", ""));
        String unit = m.group(2);
        BigDecimal factor = new BigDecimal(unit.equals("ms") ? 1 : unit.equals("min") ? 60_000 : 1000);
        return new Span(number.multiply(factor).intValue(), unit.startsWith("beat"));
    }

    /**
     * How long it is.
     *
     * @param times of the item's score, where it has one
     * @param fromNanos where it begins, since the item began
     * @return ns
     */
    public long nanos(Optional<Score.Times> times, long fromNanos) {
        if (!beats) {
            return thousandths * 1_000_000L;
        }
        if (times.isEmpty()) {
            return thousandths * BEAT_WITHOUT_SCORE_NANOS / 1000;
        }
        Score.Times known = times.get();
        long from = known.tempi().tick(Math.max(0, fromNanos));
        int bar = known.bars().position(from).bar();
        long ticks = Math.round(known.bars().meter(bar).beatTicks() * (thousandths / 1000.0));
        return known.tempi().nanos(Math.max(0, from + ticks)) - known.tempi().nanos(from);
    }

    /** As {@link #of} takes it. */
    @Override
    public String toString() {
        String number = BigDecimal.valueOf(Math.abs(thousandths), 3)
                .stripTrailingZeros()
                .toPlainString();
        boolean short_ = !beats && thousandths != 0 && Math.abs(thousandths) < 1000;
        String unit = beats ? (number.equals("1") ? " beat" : " beats") : short_ ? " ms" : " s";
        return (thousandths < 0 ? "−" : "") + (short_ ? Integer.toString(Math.abs(thousandths)) : number) + unit;
    }
}
