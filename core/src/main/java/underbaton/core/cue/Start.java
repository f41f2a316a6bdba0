package underbaton.core.cue;

import java.math.BigDecimal;
import java.util.Locale;
import underbaton.core.rig.Refusal;

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

    Start BY_HAND = new ByHand();
    Start WITH_PREVIOUS = new WithPrevious();

    /**
     * Reads what {@code toString} writes, and shorter ways of saying it: nothing or {@code hand}, {@code with},
     * {@code after 4}.
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
        throw new Refusal("starts", "“" + typed.strip() + "” is no way to start; type: by hand, with, or after 4 s.");
    }
}
