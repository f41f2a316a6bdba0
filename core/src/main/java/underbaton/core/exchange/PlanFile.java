package underbaton.core.exchange;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import underbaton.core.engine.DryRun;
import underbaton.core.engine.PlannedMessage;
import underbaton.core.exchange.MidiFile.Content;
import underbaton.core.exchange.MidiFile.Event;
import underbaton.core.exchange.MidiFile.Meta;
import underbaton.core.exchange.MidiFile.Quarters;
import underbaton.core.exchange.MidiFile.SystemExclusive;
import underbaton.core.exchange.MidiFile.Track;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.Exclusive;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.score.BarMap;
import underbaton.core.score.Meter;
import underbaton.core.score.Score;
import underbaton.core.score.Section;
import underbaton.core.store.Utf8;

/**
 * The plan of an item as a Standard MIDI File of format 1: tempi, meters, sections as markers and cues as cue points in
 * the first track, and a track for each device with what it is sent, at the time at which it is sent. Vamps are played
 * once; a move is its steps. A tick of the file is a tenth of one of the score: what stands on a tick of the score is in
 * time within a microsecond, all else at the nearest tick, about 26 µs away at most at a tempo of 120.
 */
public final class PlanFile {

    /** How far a bar may be off before it is told. */
    private static final long NOTICED_MICROS = 1000;

    private final PlannedItem item;
    private final List<Device> devices;
    private final List<PlannedMessage> messages;
    private final Score.Times times;
    private final long end;
    /** Of the file. */
    private final long endTick;

    private final TempoTrack tempi;

    private PlanFile(PlannedItem item, DryRun run) {
        this.item = item;
        this.devices = run.plan().devices();
        this.messages = run.messages(item.item().id());
        this.times = item.times().orElseGet(() -> Score.of("").read());
        this.end = end();
        this.tempi = new TempoTrack(times, end);
        this.endTick =
                Math.max(end * TempoTrack.FINE, tempi.fineTick(times.tempi().nanos(end)));
    }

    /** @throws java.util.NoSuchElementException when the item is not in the plan */
    public static MidiFile write(DryRun run, int itemId) {
        return new PlanFile(run.plan().item(itemId).orElseThrow(), run).file();
    }

    /** What of the item no such file can hold, a sentence each; empty for nothing. */
    public static List<String> left(DryRun run, int itemId) {
        List<String> left = new ArrayList<>();
        List<PlannedMessage> messages = run.messages(itemId);
        long byHand = messages.stream()
                .filter(m -> m.since() != 0)
                .map(PlannedMessage::since)
                .distinct()
                .count();
        if (byHand > 0) {
            left.add((byHand == 1 ? "1 cue waits" : byHand + " cues wait") + " for GO and has no time of its own.");
        }
        for (Device device : run.plan().devices()) {
            long osc = messages.stream()
                    .filter(m -> m.deviceId() == device.id() && !(m.message() instanceof MidiMessage))
                    .count();
            if (osc > 0) {
                left.add(osc + " messages of " + device.name() + " are OSC, not MIDI.");
            }
        }
        run.plan()
                .item(itemId)
                .map(item -> new PlanFile(item, run).tempi.earlyMicros())
                .ifPresent(early -> {
                    if (early > NOTICED_MICROS) {
                        left.add("All is sent in time, but at the end the file’s bars stand %.1f s early: "
                                        .formatted(early / 1e6)
                                + "a MIDI file knows no tempo below 3.6 quarters a minute, so so long a hold, or so slow a tempo, "
                                + "does not fit between its bars.");
                    }
                });
        return left;
    }

    /** The first barline at or behind all that happens. */
    private long end() {
        BarMap bars = times.bars();
        int bar = times.score().endBar() + 1;
        long last = messages.stream()
                .filter(m -> m.since() == 0)
                .mapToLong(PlannedMessage::atNanos)
                .max()
                .orElse(0);
        while (times.nanosOfBar(bar) < last) {
            bar++;
        }
        return bars.tickOfBar(bar);
    }

    private MidiFile file() {
        List<Track> tracks = new ArrayList<>();
        tracks.add(conductor());
        for (Device device : devices) {
            List<Event> events = events(device);
            if (!events.isEmpty()) {
                events.add(0, text(0, MidiFile.SEQUENCE_NAME, device.name()));
                tracks.add(new Track(events, endTick));
            }
        }
        return new MidiFile(1, new Quarters(TempoTrack.DIVISION), tracks);
    }

    private List<Event> events(Device device) {
        List<Event> events = new ArrayList<>();
        for (PlannedMessage m : messages) {
            if (m.since() == 0 && m.deviceId() == device.id() && m.message() instanceof MidiMessage midi) {
                long at = tempi.fineTick(m.atNanos());
                midi.commands().forEach(c -> events.add(new Event(at, content(c))));
            }
        }
        return events;
    }

    private static Content content(MidiMessage message) {
        if (message instanceof ChannelMessage channel) {
            return new MidiFile.Channel(channel);
        }
        Bytes bytes = message.encode();
        return message instanceof Exclusive
                ? new SystemExclusive(0xF0, bytes.slice(1, bytes.length()))
                : new SystemExclusive(0xF7, bytes);
    }

    private Track conductor() {
        List<Event> events = new ArrayList<>();
        events.add(text(0, MidiFile.SEQUENCE_NAME, item.item().name()));
        meters(events);
        for (TempoTrack.Piece piece : tempi.pieces()) {
            int t = piece.tempo();
            events.add(new Event(
                    piece.tick() * TempoTrack.FINE,
                    new Meta(MidiFile.TEMPO, Bytes.of(t >> 16, t >> 8 & 0xFF, t & 0xFF))));
        }
        for (Section section : times.score().sections()) {
            long tick = times.bars().tickOfBar(section.bar());
            events.add(
                    text(tick * TempoTrack.FINE, MidiFile.MARKER, (section.letter() + " " + section.name()).strip()));
        }
        for (PlannedCue cue : item.cues()) {
            boolean first = cue == item.cues().get(0);
            if (cue.atNanos().isPresent() || first) {
                long tick = tempi.fineTick(cue.atNanos().orElse(0));
                events.add(text(tick, MidiFile.CUE_POINT, (cue.label() + " " + cue.what()).strip()));
            }
        }
        events.sort(Comparator.comparingLong(Event::tick));
        return new Track(events, endTick);
    }

    /** A pick-up is a bar of its own, as sequencers write it. */
    private void meters(List<Event> events) {
        int pickUp = times.score().pickUpTicks();
        Optional<Meter> own = pickUp == 0 ? Optional.empty() : Optional.of(shortest(pickUp));
        own.ifPresent(m -> events.add(meter(0, m)));
        for (BarMap.MeterMark mark : times.score().meters()) {
            long tick = mark.bar() == 1 ? pickUp : times.bars().tickOfBar(mark.bar());
            events.add(meter(tick * TempoTrack.FINE, mark.meter()));
        }
    }

    private static Meter shortest(int ticks) {
        for (int unit = 4; unit <= 16; unit *= 2) {
            int beat = new Meter(1, unit).beatTicks();
            if (ticks % beat == 0) {
                return new Meter(ticks / beat, unit);
            }
        }
        throw new Refusal("pick-up", "A pick-up of no whole sixteenths cannot be written into a MIDI file.");
    }

    /** Numerator, denominator as a power of two, the clocks (24 a quarter) of a beat as it is counted, 8 thirty-seconds to a quarter. */
    private static Event meter(long tick, Meter meter) {
        int power = Integer.numberOfTrailingZeros(meter.unit());
        return new Event(tick, new Meta(MidiFile.METER, Bytes.of(meter.beats(), power, meter.clocks(), 8)));
    }

    private static Event text(long tick, int type, String text) {
        return new Event(tick, new Meta(type, Utf8.bytes(text)));
    }
}
