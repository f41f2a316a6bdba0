package underbaton.core.cue;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Position;

/** What makes a cue start. */
public sealed interface Start {

    /** GO. */
    record ByHand() implements Start {
        @Override
        public String toString() {
            return "by hand";
        }
    }

    /** In the same instant as the cue before it. */
    record WithPrevious() implements Start {
        @Override
        public String toString() {
            return "with";
        }
    }

    /**
     * Some time after the cue before it started.
     *
     * @param delayMs 0–3,600,000 ms
     */
    record AfterPrevious(int delayMs) implements Start {

        private static final int MOST = 3_600_000;

        public AfterPrevious {
            if (delayMs < 0 || delayMs > MOST) {
                throw new Refusal("starts", "A cue can come 0 to 3600 seconds after the one before it.");
            }
        }

        @Override
        public String toString() {
            return "after "
                    + BigDecimal.valueOf(delayMs, 3).stripTrailingZeros().toPlainString() + " s";
        }
    }

    /**
     * At a place of the item's score, counted from when the item began.
     *
     * @param offsetMs earlier (below 0) or later, −60,000 to 60,000 ms
     */
    record AtPosition(Position position, int offsetMs) implements Start {

        private static final int MOST = 60_000;
        /** Bar, beat, tick, offset in ms. */
        private static final Pattern WRITTEN =
                Pattern.compile("at (?:bar )?(\\d{1,4})(?::(\\d{1,2}))?(?::(\\d{1,4}))?(?: ([-+] ?\\d{1,5}) ?ms)?");

        public AtPosition {
            if (Math.abs(offsetMs) > MOST) {
                throw new Refusal("starts", "A cue can lie up to 60,000 ms before or after its beat.");
            }
        }

        @Override
        public String toString() {
            String offset = offsetMs == 0 ? "" : (offsetMs < 0 ? " −" : " +") + Math.abs(offsetMs) + " ms";
            return "at " + position + offset;
        }
    }

    Start BY_HAND = new ByHand();
    Start WITH_PREVIOUS = new WithPrevious();

    private static int number(String digits, int otherwise) {
        return digits == null ? otherwise : Integer.parseInt(digits);
    }

    /**
     * Reads what {@code toString} writes, and shorter ways of saying it: nothing or {@code hand}, {@code with},
     * {@code after 4}, {@code at bar 17}, {@code at 17:3 -20 ms}.
     *
     * @throws Refusal when it is none of these
     */
    static Start of(String typed) {
        String text = typed.strip().toLowerCase(Locale.ROOT).replace(',', '.');
        if (text.isEmpty() || text.equals("by hand") || text.equals("hand")) {
            return BY_HAND;
        }
        if (text.equals("with") || text.equals("with previous")) {
            return WITH_PREVIOUS;
        }
        if (text.matches("after \\d{1,4}(\\.\\d{1,3})?( ?s)?")) {
            BigDecimal seconds = new BigDecimal(text.replaceAll("[^0-9.]", ""));
            return new AfterPrevious(seconds.movePointRight(3).intValueExact());
        }
        Matcher at = AtPosition.WRITTEN.matcher(text.replace('−', '-'));
        if (at.matches()) {
            return new AtPosition(
                    new Position(number(at.group(1), 0), number(at.group(2), 1), number(at.group(3), 0)),
                    number(at.group(4) == null ? null : at.group(4).replace(" ", ""), 0));
        }
        throw new Refusal(
                "starts", "“" + typed.strip() + "” is no way to start; type: by hand, with, after 4 s, or at 17:3.");
    }
}
