package underbaton.core.cue;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Position;
import underbaton.core.score.Score;
import underbaton.core.score.Section;

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

    /** At a moment counted from when the item began: it lands by itself. */
    sealed interface Landing extends Start {

        /**
         * @param times of the item's score, where it has one
         * @return ns since the item began; below 0 when it lies before the start
         * @throws Refusal when the item has no such place
         */
        long nanos(Optional<Score.Times> times);
    }

    /**
     * At a place of the item's score.
     *
     * @param offsetMs earlier (below 0) or later, −60,000 to 60,000 ms
     */
    record AtPosition(Position position, int offsetMs) implements Landing {

        private static final int MOST = 60_000;
        /** Bar, beat, tick, offset in ms. */
        private static final Pattern WRITTEN =
                Pattern.compile("at (?:bar )?(\\d{1,5})(?::(\\d{1,2}))?(?::(\\d{1,4}))?(?: ([-+] ?\\d{1,5}) ?ms)?");

        public AtPosition {
            if (Math.abs(offsetMs) > MOST) {
                throw new Refusal("starts", "A cue can lie up to 60,000 ms before or after its beat.");
            }
            boolean known = position.bar() >= 0
                    && position.bar() <= Score.MOST_BARS
                    && position.beat() >= 0
                    && position.beat() < 100
                    && position.tick() >= 0
                    && position.tick() < 10_000;
            if (!known) {
                throw new Refusal("starts", "There is no bar and beat " + position + " in any song.");
            }
        }

        @Override
        public long nanos(Optional<Score.Times> times) {
            return bars(times).nanos(position) + offsetMs * 1_000_000L;
        }

        @Override
        public String toString() {
            String offset = offsetMs == 0 ? "" : (offsetMs < 0 ? " −" : " +") + Math.abs(offsetMs) + " ms";
            return "at " + position + offset;
        }
    }

    /**
     * Where a section begins, or some beats of its meter before or after; it moves with the section.
     *
     * @param letter of the section
     * @param thousandths of a beat, −999,000 to 999,000
     */
    record AtSection(String letter, int thousandths) implements Landing {

        private static final int MOST = 999_999;
        private static final Pattern WRITTEN =
                Pattern.compile("at ([a-z][a-z0-9]?)(?: ([-+] ?\\d{1,3}(?:\\.\\d{1,3})?) ?beats?)?");

        public AtSection {
            if (!letter.matches(Section.LETTER) || Math.abs(thousandths) > MOST) {
                throw new Refusal(
                        "starts",
                        "A cue starts at a section’s letter, up to 999 beats before or after: at B -2 beats.");
            }
        }

        @Override
        public long nanos(Optional<Score.Times> times) {
            Score.Times known = bars(times);
            return known.tempi().nanos(tick(known));
        }

        /** @return the tick it stands at, never before the item's first */
        public long tick(Score.Times times) {
            Section section = times.score()
                    .section(letter)
                    .orElseThrow(() -> new Refusal("starts", "There is no section " + letter + " in this item."));
            long beat = times.bars().meter(section.bar()).beatTicks();
            return Math.max(0, times.bars().tickOfBar(section.bar()) + Math.round(beat * thousandths / 1000.0));
        }

        @Override
        public String toString() {
            String beats = BigDecimal.valueOf(Math.abs(thousandths), 3)
                    .stripTrailingZeros()
                    .toPlainString();
            String unit = beats.equals("1") ? " beat" : " beats";
            return "at " + letter + (thousandths == 0 ? "" : (thousandths < 0 ? " −" : " +") + beats + unit);
        }
    }

    /**
     * Some time after the item began, whatever its score.
     *
     * @param millis 0–86,400,000 ms
     */
    record AtTime(int millis) implements Landing {

        private static final int MOST = 86_400_000;
        private static final Pattern WRITTEN = Pattern.compile("at time (\\d{1,4}):([0-5]\\d(?:\\.\\d{1,3})?)");

        public AtTime {
            if (millis < 0 || millis > MOST) {
                throw new Refusal("starts", "A time in the item is 0:00 to 24 hours.");
            }
        }

        @Override
        public long nanos(Optional<Score.Times> times) {
            return millis * 1_000_000L;
        }

        @Override
        public String toString() {
            BigDecimal seconds = BigDecimal.valueOf(millis % 60_000, 3).stripTrailingZeros();
            String plain = seconds.setScale(Math.max(0, seconds.scale())).toPlainString();
            return "at time " + millis / 60_000 + (millis % 60_000 < 10_000 ? ":0" : ":") + plain;
        }
    }

    private static Score.Times bars(Optional<Score.Times> times) {
        return times.orElseThrow(
                () -> new Refusal("starts", "This item has no bars yet; write its score first, on the page Score."));
    }

    Start BY_HAND = new ByHand();
    Start WITH_PREVIOUS = new WithPrevious();

    private static int number(String digits, int otherwise) {
        return digits == null ? otherwise : Integer.parseInt(digits);
    }

    /**
     * Reads what {@code toString} writes, and shorter ways of saying it: nothing or {@code hand}, {@code with},
     * {@code after 4}, {@code at bar 17}, {@code at 17:3 -20 ms}, {@code at B -2 beats}, {@code at time 1:23.5}.
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
        Matcher section = AtSection.WRITTEN.matcher(text.replace('−', '-'));
        if (section.matches()) {
            BigDecimal beats = section.group(2) == null
                    ? BigDecimal.ZERO
                    : new BigDecimal(section.group(2).replace(" ", ""));
            return new AtSection(
                    section.group(1).toUpperCase(Locale.ROOT),
                    beats.movePointRight(3).intValueExact());
        }
        Matcher time = AtTime.WRITTEN.matcher(text);
        if (time.matches()) {
            int millis = new BigDecimal(time.group(2)).movePointRight(3).intValueExact();
            return new AtTime(Integer.parseInt(time.group(1)) * 60_000 + millis);
        }
        throw new Refusal(
                "starts",
                "“" + typed.strip()
                        + "” is no way to start; type: by hand, with, after 4 s, at 17:3, at B, or at time 1:23.5.");
    }
}
