package underbaton.core.score;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.StringJoiner;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Refusal;
import underbaton.core.score.BarMap.MeterMark;

/**
 * A song in bars and beats: meters, tempi, holds and sections.
 *
 * <p>It is written a line a place, the place first: {@code 1 4/4}, {@code 1 quarter = 120}, {@code 9 A Verse 1}, {@code 17
 * dotted quarter = 72 over 2 bars}, {@code 40:3 hold 2 s}, {@code pick-up 1 quarter}. Without a line for it, bar 1 has 4/4
 * and quarter = 120.
 *
 * @param pickUpTicks length of the pick-up before bar 1; 0 for none
 * @param meters the first at bar 1
 * @param tempi the first at tick 0
 * @param sections in the order of their bars
 */
public record Score(
        int pickUpTicks, List<MeterMark> meters, List<TempoMark> tempi, List<Hold> holds, List<Section> sections) {

    /**
     * A part of a song, from its bar to the next one's.
     *
     * @param bar 1 for the first whole bar
     * @param letter the rehearsal letter, one or two characters
     */
    public record Section(int bar, String letter, String name) {}

    private static final int MOST_LINES = 1000;
    private static final Pattern PICK_UP = Pattern.compile("pick-?up (\\d{1,2}) (half|quarter|eighth|sixteenth)s?");
    private static final Pattern PLACE = Pattern.compile("(\\d{1,4})(?::(\\d{1,2})(?::(\\d{1,4}))?)?\\s+(.+)");
    private static final Pattern TEMPO = Pattern.compile(
            "(half|dotted quarter|quarter|dotted eighth|eighth|sixteenth)\\s*=\\s*(\\d{1,3}(?:\\.\\d{1,3})?)(?: over (\\d{1,3}) bars?)?");
    private static final Pattern HOLD = Pattern.compile("hold (\\d{1,3}(?:\\.\\d{1,3})?) ?s");
    private static final Pattern SECTION = Pattern.compile("([A-Z][A-Z0-9]?)(?: (.{1,60}))?");

    public Score {
        meters = List.copyOf(meters);
        tempi = List.copyOf(tempi);
        holds = List.copyOf(holds);
        sections = List.copyOf(sections);
        // Both refuse what cannot be.
        new BarMap(pickUpTicks, meters);
        new TempoMap(tempi, holds);
    }

    /** The maps of a score, made once for many questions. */
    public record Times(BarMap bars, TempoMap tempi) {

        /**
         * @return ns since the start of the item
         * @throws Refusal when the bar has no such beat
         */
        public long nanos(Position position) {
            return tempi.nanos(bars.tick(position));
        }
    }

    public BarMap bars() {
        return new BarMap(pickUpTicks, meters);
    }

    public Times read() {
        return new Times(bars(), new TempoMap(tempi, holds));
    }

    /**
     * One answer; for many ask {@link #read}.
     *
     * @return ns since the start of the item
     * @throws Refusal when the bar has no such beat
     */
    public long nanos(Position position) {
        return read().nanos(position);
    }

    /** @throws Refusal naming the line that cannot be read */
    public static Score of(String typed) {
        List<String> lines =
                typed.lines().map(String::strip).filter(l -> !l.isEmpty()).toList();
        if (lines.size() > MOST_LINES) {
            throw new Refusal("score", "A score has at most " + MOST_LINES + " lines.");
        }
        return new Reading(lines).score();
    }

    @Override
    public String toString() {
        BarMap bars = bars();
        StringJoiner text = new StringJoiner("\n");
        if (pickUpTicks > 0) {
            int sixteenths = pickUpTicks / BeatUnit.SIXTEENTH.ticks();
            text.add(
                    pickUpTicks % BeatUnit.QUARTER_TICKS == 0
                            ? "pick-up " + pickUpTicks / BeatUnit.QUARTER_TICKS + " quarter"
                            : "pick-up " + sixteenths + " sixteenth");
        }
        meters.forEach(m -> text.add(m.bar() + " " + m.meter()));
        for (TempoMark mark : tempi) {
            Position from = bars.position(mark.tick());
            int last = bars.position(mark.tick() + mark.overTicks()).bar();
            String over = mark.overTicks() == 0 ? "" : " over " + (last - from.bar()) + " bars";
            text.add((mark.tick() == 0 ? "1" : place(from)) + " " + mark.tempo() + over);
        }
        holds.forEach(h -> text.add(place(bars.position(h.tick())) + " hold " + seconds(h.millis()) + " s"));
        sections.forEach(s -> text.add(s.bar() + " " + (s.letter() + " " + s.name()).strip()));
        return text.toString();
    }

    private static String place(Position p) {
        return p.beat() == 1 && p.tick() == 0 ? Integer.toString(p.bar()) : p.toString();
    }

    private static String seconds(int millis) {
        return BigDecimal.valueOf(millis, 3).stripTrailingZeros().toPlainString();
    }

    /** Lines of a score, read in two goes: bars must be known before the places in them. */
    private static final class Reading {
        private final List<String> lines;
        private int pickUp;
        private final List<MeterMark> meters = new ArrayList<>();
        private final List<TempoMark> tempi = new ArrayList<>();
        private final List<Hold> holds = new ArrayList<>();
        private final List<Section> sections = new ArrayList<>();

        Reading(List<String> lines) {
            this.lines = lines;
        }

        Score score() {
            lines.forEach(this::readBars);
            if (meters.stream().noneMatch(m -> m.bar() == 1)) {
                meters.add(0, new MeterMark(1, Meter.COMMON));
            }
            BarMap bars = new BarMap(pickUp, meters);
            lines.forEach(line -> readPlaced(line, bars));
            if (tempi.stream().noneMatch(t -> t.tick() == 0)) {
                tempi.add(0, TempoMark.at(0, Tempo.quarters(120)));
            }
            return new Score(pickUp, meters, tempi, holds, sections);
        }

        private void readBars(String line) {
            Matcher pick = PICK_UP.matcher(line.toLowerCase(Locale.ROOT));
            Matcher placed = PLACE.matcher(line);
            if (pick.matches()) {
                pickUp = Integer.parseInt(pick.group(1)) * unit(pick.group(2)).ticks();
            } else if (placed.matches() && placed.group(4).matches("\\d+\\s*/\\s*\\d+")) {
                meters.add(new MeterMark(Integer.parseInt(placed.group(1)), Meter.of(placed.group(4))));
            }
        }

        private void readPlaced(String line, BarMap bars) {
            Matcher placed = PLACE.matcher(line);
            if (PICK_UP.matcher(line.toLowerCase(Locale.ROOT)).matches()) {
                return;
            }
            if (!placed.matches()) {
                throw unread(line);
            }
            int bar = Integer.parseInt(placed.group(1));
            int beat = placed.group(2) == null ? 1 : Integer.parseInt(placed.group(2));
            int within = placed.group(3) == null ? 0 : Integer.parseInt(placed.group(3));
            long tick = bar == 1 && placed.group(2) == null ? 0 : bars.tick(new Position(bar, beat, within));
            String says = placed.group(4).strip();
            Matcher tempo = TEMPO.matcher(says.toLowerCase(Locale.ROOT));
            Matcher hold = HOLD.matcher(says.toLowerCase(Locale.ROOT));
            Matcher section = SECTION.matcher(says);
            if (tempo.matches()) {
                long over = tempo.group(3) == null ? 0 : bars.tickOfBar(bar + Integer.parseInt(tempo.group(3))) - tick;
                Tempo speed = Tempo.of(unit(tempo.group(1)), Double.parseDouble(tempo.group(2)));
                tempi.add(new TempoMark(tick, speed, over));
            } else if (hold.matches()) {
                long place = bars.tick(new Position(bar, beat, within));
                holds.add(new Hold(place, (int) Math.round(Double.parseDouble(hold.group(1)) * 1000)));
            } else if (section.matches() && placed.group(2) == null) {
                sections.add(new Section(bar, section.group(1), section.group(2) == null ? "" : section.group(2)));
            } else if (!says.matches("\\d+\\s*/\\s*\\d+")) {
                throw unread(line);
            }
        }

        private static BeatUnit unit(String words) {
            for (BeatUnit unit : BeatUnit.values()) {
                if (unit.words().equals(words)) {
                    return unit;
                }
            }
            throw new IllegalArgumentException(words);
        }

        private static Refusal unread(String line) {
            return new Refusal(
                    "score",
                    "“" + line + "” cannot be read; write the bar and then what stands there: 1 4/4, 1 quarter = 120, "
                            + "9 A Verse 1, 17 quarter = 96 over 2 bars, 40:3 hold 2 s.");
        }
    }
}
