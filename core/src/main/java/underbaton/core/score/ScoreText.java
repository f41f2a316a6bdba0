package underbaton.core.score;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.StringJoiner;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Refusal;
import underbaton.core.score.BarMap.MeterMark;

/**
 * A score in words, a line a place, the place first: {@code 1 4/4}, {@code 1 quarter = 120}, {@code 9 A Verse 1}, {@code 17
 * dotted quarter = 72 over 2 bars}, {@code 40:3 hold 2 s}, {@code 41 C Chorus 2 as B without 12}, {@code 54 vamp 3 bars,
 * leave at the bar}, {@code 61 film 4:37}, {@code 72 end}, {@code pick-up 1 quarter}. Without a line for it, bar 1 has 4/4
 * and quarter = 120. Read in two goes: bars must be known before the places in them.
 */
final class ScoreText {

    private static final int MOST_LINES = Score.MOST_MARKS + 100;
    private static final int LONGEST_LINE = 500;
    private static final String BEHIND = "\\d+\\s*/\\s*\\d+(\\s+in\\s+\\d+)?";
    private static final Pattern PICK_UP =
            Pattern.compile("pick-?up (\\d{1,5}) (half|quarter|eighth|sixteenth|tick)s?");
    private static final Pattern PLACE = Pattern.compile("(\\d{1,5})(?::(\\d{1,2})(?::(\\d{1,4}))?)?\\s+(.+)");
    private static final Pattern TEMPO = Pattern.compile(Tempo.WRITTEN + "(?: over (\\d{1,9}) (bar|tick)s?)?");
    private static final Pattern HOLD = Pattern.compile("hold (\\d{1,3}(?:\\.\\d{1,3})?) ?s");
    private static final Pattern SECTION = Pattern.compile("(" + Section.LETTER + ")(?: (" + NameInWords.QUOTED
            + "|.{1,60}?))??(?: as (" + Section.LETTER + ")(?: without ([\\d., ]+))?)?");

    private final List<String> lines;
    private int pickUp;
    private int end;
    private final List<MeterMark> meters = new ArrayList<>();
    private final List<TempoMark> tempi = new ArrayList<>();
    private final List<Hold> holds = new ArrayList<>();
    private final List<Section> sections = new ArrayList<>();
    private final List<Vamp> vamps = new ArrayList<>();
    private final List<Film> films = new ArrayList<>();

    private ScoreText(List<String> lines) {
        this.lines = lines;
    }

    static Score read(String typed) {
        List<String> lines =
                typed.lines().map(String::strip).filter(l -> !l.isEmpty()).toList();
        if (lines.size() > MOST_LINES) {
            throw new Refusal("score", "A score has at most " + MOST_LINES + " lines.");
        }
        lines.stream().filter(l -> l.length() > LONGEST_LINE).findFirst().ifPresent(l -> {
            throw unread(Cut.shown(41, l));
        });
        return new ScoreText(lines).score();
    }

    private Score score() {
        lines.forEach(this::readBars);
        if (meters.stream().noneMatch(m -> m.bar() == 1)) {
            meters.add(0, new MeterMark(1, Meter.COMMON));
        }
        BarMap bars = new BarMap(pickUp, meters);
        lines.forEach(line -> readPlaced(line, bars));
        if (tempi.stream().noneMatch(t -> t.tick() == 0)) {
            tempi.add(0, TempoMark.at(0, Tempo.quarters(120)));
        }
        return new Score(pickUp, meters, tempi, holds, sections, vamps, films, end);
    }

    private void readBars(String line) {
        Matcher pick = PICK_UP.matcher(line.toLowerCase(Locale.ROOT));
        Matcher placed = PLACE.matcher(line);
        if (pick.matches()) {
            int unit = pick.group(2).equals("tick")
                    ? 1
                    : BeatUnit.of(pick.group(2)).ticks();
            pickUp = Integer.parseInt(pick.group(1)) * unit;
        } else if (placed.matches() && placed.group(4).matches(BEHIND)) {
            meters.add(new MeterMark(Integer.parseInt(placed.group(1)), Meter.of(placed.group(4))));
        }
    }

    private void readPlaced(String line, BarMap bars) {
        if (PICK_UP.matcher(line.toLowerCase(Locale.ROOT)).matches()) {
            return;
        }
        Matcher placed = PLACE.matcher(line);
        if (!placed.matches()) {
            throw unread(line);
        }
        int bar = Integer.parseInt(placed.group(1));
        boolean atBar = placed.group(2) == null;
        int beat = atBar ? 1 : Integer.parseInt(placed.group(2));
        Position place = new Position(bar, beat, placed.group(3) == null ? 0 : Integer.parseInt(placed.group(3)));
        String says = placed.group(4).strip();
        boolean read = readTime(place, atBar, says, bars) || atBar && readSpan(bar, says);
        if (!read && !says.matches(BEHIND)) {
            throw unread(line);
        }
    }

    /** What changes the time: tempi and holds. */
    private boolean readTime(Position place, boolean atBar, String says, BarMap bars) {
        Matcher tempo = TEMPO.matcher(says.toLowerCase(Locale.ROOT));
        Matcher hold = HOLD.matcher(says.toLowerCase(Locale.ROOT));
        if (tempo.matches()) {
            long tick = place.bar() == 1 && atBar ? 0 : bars.tick(place);
            int span = tempo.group(3) == null ? 0 : Integer.parseInt(tempo.group(3));
            long over = span == 0 || tempo.group(4).equals("tick") ? span : barsFrom(bars, place.bar(), span);
            Tempo speed = Tempo.of(BeatUnit.of(tempo.group(1)), Double.parseDouble(tempo.group(2)));
            tempi.add(new TempoMark(tick, speed, over));
        } else if (hold.matches()) {
            holds.add(new Hold(bars.tick(place), (int) Math.round(Double.parseDouble(hold.group(1)) * 1000)));
        }
        return tempo.matches() || hold.matches();
    }

    /** As long as so many bars are, from wherever in the first of them. */
    private static long barsFrom(BarMap bars, int bar, int span) {
        return bars.tickOfBar(bar + span) - bars.tickOfBar(bar);
    }

    /** What lasts from a bar on: sections, vamps, films; and the end. */
    private boolean readSpan(int bar, String says) {
        Matcher section = SECTION.matcher(says);
        if (Vamp.isWritten(says)) {
            vamps.add(Vamp.of(bar, says));
        } else if (Film.isWritten(says)) {
            films.add(Film.of(bar, says));
        } else if (says.equalsIgnoreCase("end")) {
            end = bar;
        } else if (section.matches()) {
            String name = NameInWords.read(section.group(2));
            List<String> without = section.group(4) == null
                    ? List.of()
                    : List.of(section.group(4).strip().split("[, ]+"));
            sections.add(new Section(bar, section.group(1), name, Optional.ofNullable(section.group(3)), without));
        } else {
            return false;
        }
        return true;
    }

    private static Refusal unread(String line) {
        return new Refusal(
                "score",
                "“" + line + "” cannot be read; write the bar and then what stands there: 1 4/4, 1 quarter = 120, "
                        + "9 A Verse 1, 17 quarter = 96 over 2 bars, 40:3 hold 2 s, 54 vamp 4 bars, 61 film 4:37, 72 end, "
                        + "or pick-up 1 quarter.");
    }

    static String write(Score score) {
        BarMap bars = score.bars();
        StringJoiner text = new StringJoiner("\n");
        if (score.pickUpTicks() > 0) {
            text.add("pick-up " + pickUp(score.pickUpTicks()));
        }
        score.meters().forEach(m -> text.add(m.bar() + " " + m.meter()));
        for (TempoMark mark : score.tempi()) {
            text.add(tempoPlace(score, bars, mark) + " " + mark.tempo() + over(bars, mark));
        }
        score.holds().forEach(h -> text.add(place(bars.position(h.tick())) + " hold " + seconds(h.millis()) + " s"));
        score.sections().forEach(s -> text.add(s.toString()));
        score.vamps().forEach(v -> text.add(v.toString()));
        score.films().forEach(f -> text.add(f.toString()));
        if (score.lastBar() > 0) {
            text.add(score.lastBar() + " end");
        }
        return text.toString();
    }

    private static String pickUp(int ticks) {
        for (BeatUnit unit : List.of(BeatUnit.QUARTER, BeatUnit.SIXTEENTH)) {
            if (ticks % unit.ticks() == 0) {
                return ticks / unit.ticks() + " " + unit.words();
            }
        }
        return ticks + " ticks";
    }

    /** A tempo at “1” rules from the very start; behind a pick-up the first beat of bar 1 is another place. */
    private static String tempoPlace(Score score, BarMap bars, TempoMark mark) {
        boolean firstBeat = mark.tick() > 0 && mark.tick() == score.pickUpTicks();
        return mark.tick() == 0 ? "1" : firstBeat ? "1:1" : place(bars.position(mark.tick()));
    }

    private static String over(BarMap bars, TempoMark mark) {
        int from = Math.max(mark.tick() == 0 ? 1 : 0, bars.position(mark.tick()).bar());
        int span = bars.position(bars.tickOfBar(from) + mark.overTicks()).bar() - from;
        boolean whole = span > 0 && barsFrom(bars, from, span) == mark.overTicks();
        return mark.overTicks() == 0
                ? ""
                : whole ? " over " + span + (span == 1 ? " bar" : " bars") : " over " + mark.overTicks() + " ticks";
    }

    private static String place(Position p) {
        return p.beat() == 1 && p.tick() == 0 ? Integer.toString(p.bar()) : p.toString();
    }

    private static String seconds(int millis) {
        return BigDecimal.valueOf(millis, 3).stripTrailingZeros().toPlainString();
    }
}
