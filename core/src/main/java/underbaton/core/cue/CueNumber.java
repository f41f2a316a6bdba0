package underbaton.core.cue;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import underbaton.core.rig.Refusal;

/**
 * A cue's number as theatres write it: 12, 12.5, 12.55. Ordered as numbers, so 12.5 comes before 12.55, and 12.50 is
 * 12.5.
 *
 * @param thousandths 1–99,999,000: what is twice the same number is twice the same
 */
public record CueNumber(int thousandths) implements Comparable<CueNumber> {

    private static final int PLACES = 3;
    private static final int ONE = 1000;
    private static final int MOST = 99_999 * ONE;

    public CueNumber {
        if (thousandths < 1 || thousandths > MOST) {
            throw outOfRange();
        }
    }

    /**
     * @param value 0.001–99,999, at most three places after the point
     * @throws Refusal for any other
     */
    public CueNumber(BigDecimal value) {
        this(thousandthsOf(value));
    }

    private static int thousandthsOf(BigDecimal value) {
        try {
            return value.movePointRight(PLACES).intValueExact();
        } catch (ArithmeticException tooManyPlacesOrTooLarge) {
            throw outOfRange();
        }
    }

    private static Refusal outOfRange() {
        return new Refusal(
                "number", "A cue number is 0.001 to 99999 with at most three places after the point, such as 12.5.");
    }

    /** Exact, with at most three decimals. */
    public BigDecimal value() {
        return BigDecimal.valueOf(thousandths, PLACES);
    }

    /** @throws Refusal when the text is no cue number */
    public static CueNumber of(String text) {
        String typed = text.strip().replace(',', '.');
        if (!typed.matches("\\d{1,5}(\\.\\d{1,3})?")) {
            throw new Refusal("number", "“" + text.strip() + "” is no cue number; type one such as 12, 12.5 or 12.55.");
        }
        return new CueNumber(new BigDecimal(typed));
    }

    /**
     * The plainest number between two: a whole one if there is room, else with as few places as it takes.
     *
     * @throws Refusal when three places leave no room
     */
    public static CueNumber between(CueNumber before, CueNumber after) {
        for (int places = 0; places <= PLACES; places++) {
            BigDecimal step = BigDecimal.ONE.movePointLeft(places);
            BigDecimal middle =
                    before.value().add(after.value()).divide(BigDecimal.valueOf(2), places, RoundingMode.FLOOR);
            BigDecimal next = middle.compareTo(before.value()) > 0 ? middle : middle.add(step);
            if (next.compareTo(before.value()) > 0 && next.compareTo(after.value()) < 0) {
                return new CueNumber(next);
            }
        }
        throw new Refusal(
                "number", "There is no number left between " + before + " and " + after + "; renumber one of them.");
    }

    /**
     * The plainest numbers for several cues in a row: steps of one where there is room, else of a tenth, and so on.
     *
     * @param before the last number before them
     * @param after the first number behind them; empty for none
     * @throws Refusal when three places leave no room
     */
    public static List<CueNumber> spread(CueNumber before, Optional<CueNumber> after, int count) {
        for (int places = 0; places <= PLACES; places++) {
            BigDecimal step = BigDecimal.ONE.movePointLeft(places);
            BigDecimal first =
                    before.value().setScale(places, RoundingMode.FLOOR).add(step);
            BigDecimal last = first.add(step.multiply(BigDecimal.valueOf(count - 1L)));
            if (after.isEmpty() || last.compareTo(after.get().value()) < 0) {
                return IntStream.range(0, count)
                        .mapToObj(i -> new CueNumber(first.add(step.multiply(BigDecimal.valueOf(i)))))
                        .toList();
            }
        }
        throw new Refusal(
                "number",
                "Between " + before + " and " + after.get() + " there are no " + count
                        + " numbers left; renumber the cues first.");
    }

    /** The next whole number above. */
    public CueNumber nextWhole() {
        return new CueNumber((thousandths / ONE + 1) * ONE);
    }

    @Override
    public int compareTo(CueNumber other) {
        return Integer.compare(thousandths, other.thousandths);
    }

    @Override
    public String toString() {
        return thousandths % ONE == 0
                ? Integer.toString(thousandths / ONE)
                : value().stripTrailingZeros().toPlainString();
    }
}
