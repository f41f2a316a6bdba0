package underbaton.core.exchange;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import underbaton.core.exchange.MidiFile.Channel;
import underbaton.core.exchange.MidiFile.Event;
import underbaton.core.exchange.MidiFile.Frames;
import underbaton.core.exchange.MidiFile.Meta;
import underbaton.core.exchange.MidiFile.Quarters;
import underbaton.core.exchange.MidiFile.SystemExclusive;
import underbaton.core.exchange.MidiFile.Track;
import underbaton.core.exchange.Song.CuePoint;
import underbaton.core.exchange.Song.Part;
import underbaton.core.exchange.Song.TimedMessage;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.MidiParser;
import underbaton.core.midi.SysEx;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Refusal;
import underbaton.core.score.BarMap;
import underbaton.core.score.BarMap.MeterMark;
import underbaton.core.score.Meter;
import underbaton.core.score.Score;
import underbaton.core.score.Section;
import underbaton.core.score.TempoMark;
import underbaton.core.store.Utf8;

/** Makes a song of a Standard MIDI File: tempi, meters, sections, parts and cue points. */
final class SongReader {

    /** A file without a tempo is played at 120, one without a meter in 4/4 (Standard MIDI Files 1.0). */
    private static final int USUAL_TEMPO = 500_000;

    private static final long LONGEST_NANOS = 86_400_000_000_000L;
    private static final int MOST_REMARKS = 100;
    /** 29 stands for 29.97, which is 30 in 1.001 seconds. */
    private static final long DROP_NANOS_A_SECOND = 1_001_000_000L;

    private final MidiFile file;
    private final List<String> remarks = new ArrayList<>();
    private final long end;
    private Optional<Score.Times> times = Optional.empty();

    SongReader(MidiFile file) {
        this.file = file;
        this.end = file.tracks().stream().mapToLong(Track::end).max().orElse(0);
    }

    Song song() {
        Optional<Score> score =
                file.division() instanceof Quarters q ? Optional.of(score(q.ticks())) : Optional.empty();
        times = score.map(Score::read);
        if (nanos(end) > LONGEST_NANOS) {
            throw new Refusal("file", "This file lasts longer than a day; is it the right one?");
        }
        String name = file.tracks().stream().findFirst().map(SongReader::name).orElse("");
        List<Part> parts = new ArrayList<>();
        for (int i = 0; i < file.tracks().size(); i++) {
            parts.addAll(parts(file.tracks().get(i), i));
        }
        if (score.isEmpty()) {
            metas(MidiFile.MARKER)
                    .forEach(e -> remark("The marker “" + text(e) + "” stands at " + seconds(nanos(e.tick()))
                            + "; this file counts frames, so it has no bars for a section."));
        }
        return new Song(name, score, parts, cuePoints(), remarks);
    }

    private List<CuePoint> cuePoints() {
        return metas(MidiFile.CUE_POINT)
                .map(e -> new CuePoint(nanos(e.tick()), text(e)))
                .toList();
    }

    // ---- the score

    private Score score(int division) {
        int pickUp = 0;
        List<MeterMark> meters = new ArrayList<>();
        TreeMap<Long, Meter> written = meters(division);
        Long second = written.higherKey(0L);
        Meter first = written.get(0L);
        boolean short1 = second != null
                && second == first.barTicks()
                && first.barTicks() < written.get(second).barTicks();
        if (short1) {
            pickUp = first.barTicks();
            remark("The first bar of the file, of " + first
                    + ", is taken as a pick-up: the file’s bar 2 is bar 1 here.");
            written.remove(0L);
            written.put(0L, written.remove(second));
        }
        long from = pickUp;
        for (Map.Entry<Long, Meter> mark : written.entrySet()) {
            MeterMark next = meterMark(meters, from, mark.getKey(), mark.getValue());
            from += meters.isEmpty()
                    ? 0
                    : (long) (next.bar() - last(meters).bar())
                            * last(meters).meter().barTicks();
            meters.add(next);
        }
        BarMap bars = new BarMap(pickUp, meters);
        TreeMap<Long, Integer> events = new TreeMap<>();
        metas(MidiFile.TEMPO).forEach(e -> events.put(e.tick(), micros((Meta) e.content())));
        events.putIfAbsent(0L, USUAL_TEMPO);
        List<TempoMark> tempi = new TempoReading(events, division, end).marks(bars);
        long lastTick = Math.max(0, TempoReading.ours(end, division) - 1);
        if (lastTick > bars.tickOfBar(Score.MOST_BARS)) {
            throw new Refusal("file", "This file has more than " + Score.MOST_BARS + " bars; is it the right one?");
        }
        int lastBar = bars.position(lastTick).bar();
        List<Section> sections = sections(bars, division);
        int reached = sections.stream().mapToInt(Section::bar).max().orElse(1);
        return new Score(pickUp, meters, tempi, List.of(), sections, List.of(), List.of(), Math.max(lastBar, reached));
    }

    private static int micros(Meta tempo) {
        return tempo.data().at(0) << 16 | tempo.data().at(1) << 8 | tempo.data().at(2);
    }

    private TreeMap<Long, Meter> meters(int division) {
        TreeMap<Long, Meter> meters = new TreeMap<>();
        metas(MidiFile.METER).forEach(e -> {
            Bytes data = ((Meta) e.content()).data();
            long tick = TempoReading.ours(e.tick(), division);
            meter(data.at(0), 1 << data.at(1))
                    .ifPresentOrElse(
                            m -> meters.put(tick, isCompound(m) ? m.countedBy(data.length() > 2 ? data.at(2) : 0) : m),
                            () -> remark("A meter of " + data.at(0) + "/" + (1 << data.at(1))
                                    + " cannot be written here; the one before it goes on."));
        });
        meters.putIfAbsent(0L, Meter.COMMON);
        return meters;
    }

    /** Many programs write a click of a quarter whatever the meter; where threes make a beat, the click says how it is counted. */
    private static boolean isCompound(Meter meter) {
        return meter.unit() >= 8 && meter.beats() > 3 && meter.beats() % 3 == 0;
    }

    /** In a unit that we have: 1/1 is 2/2. */
    private static Optional<Meter> meter(int beats, int unit) {
        int top = beats * (unit == 1 ? 2 : 1);
        int bottom = Math.max(2, unit);
        while (bottom > 16 && top % 2 == 0) {
            top /= 2;
            bottom /= 2;
        }
        return bottom > 16 || top > 32 || top < 1 ? Optional.empty() : Optional.of(new Meter(top, bottom));
    }

    private static MeterMark last(List<MeterMark> marks) {
        return marks.get(marks.size() - 1);
    }

    /** @param from where the last meter before it begins, in ticks */
    private MeterMark meterMark(List<MeterMark> before, long from, long tick, Meter meter) {
        if (before.isEmpty()) {
            return new MeterMark(1, meter);
        }
        int length = last(before).meter().barTicks();
        long away = Math.max(0, tick - from);
        long bars = Math.max(1, (2 * away + length) / (2L * length));
        long bar = last(before).bar() + bars;
        if (bar > Score.MOST_BARS) {
            throw new Refusal("file", "This file has more than " + Score.MOST_BARS + " bars; is it the right one?");
        }
        if (from + bars * length != tick) {
            remark("The meter " + meter + " stands within bar " + (last(before).bar() + away / length)
                    + "; it is taken from bar " + bar + " on.");
        }
        return new MeterMark((int) bar, meter);
    }

    private static int nearestBar(BarMap bars, long tick) {
        int bar = bars.position(tick).bar();
        long from = bars.tickOfBar(bar);
        return 2 * (tick - from) >= bars.tickOfBar(bar + 1) - from ? bar + 1 : bar;
    }

    private List<Section> sections(BarMap bars, int division) {
        TreeMap<Integer, Section> sections = new TreeMap<>();
        List<String> reserved = metas(MidiFile.MARKER).map(e -> letter(text(e))).toList();
        List<String> letters = new ArrayList<>();
        metas(MidiFile.MARKER).forEach(e -> {
            String text = text(e);
            long tick = TempoReading.ours(e.tick(), division);
            int bar = Math.max(bars.tickOfBar(1) > 0 && tick < bars.tickOfBar(1) ? 0 : 1, nearestBar(bars, tick));
            if (bars.tickOfBar(bar) != tick) {
                remark("The marker “" + text + "” stands at " + bars.position(tick) + "; its section begins at bar "
                        + bar + ".");
            }
            if (text.isEmpty() || sections.containsKey(bar)) {
                remark("The marker “" + text + "” at bar " + bar
                        + " is left out: a section has one name, and begins where no other does.");
                return;
            }
            Section section = section(bar, text, letters, reserved);
            letters.add(section.letter());
            sections.put(bar, section);
        });
        return List.copyOf(sections.values());
    }

    /** A marker that begins with a rehearsal letter keeps it; others get the next that is free. */
    private static Section section(int bar, String marker, List<String> taken, List<String> reserved) {
        String own = letter(marker);
        boolean lettered = !own.isEmpty() && !taken.contains(own);
        String letter = lettered
                ? own
                : free(Stream.concat(taken.stream(), reserved.stream()).toList());
        String name = lettered ? marker.substring(own.length()).strip() : marker;
        return new Section(bar, letter, Cut.to(60, name));
    }

    private static String letter(String marker) {
        String word = marker.split(" ", 2)[0];
        return word.matches("[A-Z][A-Z0-9]?") ? word : "";
    }

    private static String free(List<String> taken) {
        for (String second : List.of("", "1", "2", "3", "4", "5", "6", "7", "8", "9")) {
            for (char letter = 'A'; letter <= 'Z'; letter++) {
                if (!taken.contains(letter + second)) {
                    return letter + second;
                }
            }
        }
        throw new Refusal("file", "This file has more than 260 markers; take some out.");
    }

    /** The first hundred; a file that is wrong throughout does not fill a page with them. */
    private void remark(String sentence) {
        if (remarks.size() < MOST_REMARKS) {
            remarks.add(sentence);
        }
    }

    // ---- moments

    /** @return ns since the song began, as our score counts them */
    private long nanos(long tick) {
        if (file.division() instanceof Frames f) {
            BigInteger second = BigInteger.valueOf(f.frames() == 29 ? DROP_NANOS_A_SECOND : 1_000_000_000L);
            long ticks = (f.frames() == 29 ? 30L : f.frames()) * f.ticks();
            BigInteger nanos = BigInteger.valueOf(tick).multiply(second).divide(BigInteger.valueOf(ticks));
            return nanos.bitLength() < Long.SIZE ? nanos.longValue() : Long.MAX_VALUE;
        }
        int division = ((Quarters) file.division()).ticks();
        long fine = tick * 960;
        long whole = fine / division;
        long part = fine % division;
        long from = times.orElseThrow().tempi().nanos(whole);
        return part == 0 ? from : from + (times.get().tempi().nanos(whole + 1) - from) * part / division;
    }

    private static String seconds(long nanos) {
        return nanos / 60_000_000_000L + ":" + String.format("%02d", nanos / 1_000_000_000L % 60);
    }

    // ---- the parts

    private List<Part> parts(Track track, int index) {
        TreeMap<Integer, List<TimedMessage>> byChannel = new TreeMap<>();
        List<TimedMessage> all = new ArrayList<>();
        for (TimedMessage said : banked(said(track))) {
            all.add(said);
            int channel = said.message() instanceof ChannelMessage m ? m.channel() : -1;
            byChannel.computeIfAbsent(channel, c -> new ArrayList<>()).add(said);
        }
        String own = index == 0 && file.format() == 1 ? "" : name(track);
        String name = own.isEmpty() ? "track " + (index + 1) : own;
        if (all.isEmpty()) {
            return List.of();
        }
        if (byChannel.size() == 1 || file.format() == 1) {
            return List.of(new Part(name, all));
        }
        List<Part> parts = new ArrayList<>();
        byChannel.forEach((channel, said) -> parts.add(new Part(
                channel < 0 ? name + ", no channel" : name + ", channel " + Numbering.channel(channel), said)));
        return parts;
    }

    private List<TimedMessage> said(Track track) {
        List<TimedMessage> said = new ArrayList<>();
        for (Event event : track.events()) {
            if (event.content() instanceof Channel channel) {
                said.add(new TimedMessage(nanos(event.tick()), channel.message()));
            } else if (event.content() instanceof SystemExclusive exclusive) {
                byte[] bytes = (exclusive.status() == 0xF0 ? Bytes.of(0xF0).then(exclusive.data()) : exclusive.data())
                        .toArray();
                MidiParser parser = new MidiParser(SysEx.LONGEST, new MidiParser.Sink() {
                    @Override
                    public void message(MidiMessage message) {
                        said.add(new TimedMessage(nanos(event.tick()), message));
                    }

                    @Override
                    public void trouble(MidiParser.Trouble trouble) {
                        remark("A system message at " + seconds(nanos(event.tick())) + " cannot be read.");
                    }
                });
                parser.accept(bytes, 0, bytes.length);
            }
        }
        return said;
    }

    /** Bank selects of one moment become one message with the program they belong to. */
    private static List<TimedMessage> banked(List<TimedMessage> said) {
        List<TimedMessage> joined = new ArrayList<>();
        for (TimedMessage one : said) {
            int n = joined.size();
            if (one.message() instanceof ProgramChange program
                    && n >= 2
                    && isBank(joined.get(n - 2), 0, one)
                    && isBank(joined.get(n - 1), 32, one)) {
                int low = ((ControlChange) joined.remove(n - 1).message()).value();
                int high = ((ControlChange) joined.remove(n - 2).message()).value();
                joined.add(new TimedMessage(
                        one.nanos(), new BankProgram(program.channel(), high << 7 | low, program.program())));
            } else {
                joined.add(one);
            }
        }
        return joined;
    }

    private static boolean isBank(TimedMessage said, int controller, TimedMessage program) {
        return said.nanos() == program.nanos()
                && said.message() instanceof ControlChange change
                && change.controller() == controller
                && change.channel() == ((ChannelMessage) program.message()).channel();
    }

    // ---- texts

    private static String name(Track track) {
        return track.events().stream()
                .filter(e -> e.content() instanceof Meta m && m.type() == MidiFile.SEQUENCE_NAME)
                .findFirst()
                .map(SongReader::text)
                .orElse("");
    }

    private static String text(Event event) {
        return Utf8.lenient(((Meta) event.content()).data());
    }

    /** Of all tracks, in the order of their ticks. */
    private Stream<Event> metas(int type) {
        return file.tracks().stream()
                .flatMap(t -> t.events().stream())
                .filter(e -> e.content() instanceof Meta m && m.type() == type)
                .sorted(Comparator.comparingLong(Event::tick));
    }
}
