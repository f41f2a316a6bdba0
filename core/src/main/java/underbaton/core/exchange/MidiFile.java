package underbaton.core.exchange;

import java.util.List;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.rig.Refusal;

/**
 * A Standard MIDI File (Standard MIDI Files 1.0) as a value.
 *
 * @param format 0 for one track, 1 for several that sound together
 * @param division what its ticks are
 */
public record MidiFile(int format, Division division, List<Track> tracks) {

    /** Of all tracks together, of all kinds. What is read beside a running show must not hold it up by its memory. */
    public static final int MOST_EVENTS = 60_000;

    /** The largest file that is read, in bytes; songs take some thousands. */
    public static final int LARGEST = 4_000_000;

    public static final int TEXT = 0x01;
    public static final int SEQUENCE_NAME = 0x03;
    public static final int MARKER = 0x06;
    public static final int CUE_POINT = 0x07;
    public static final int END_OF_TRACK = 0x2F;
    public static final int TEMPO = 0x51;
    public static final int METER = 0x58;

    public MidiFile {
        tracks = List.copyOf(tracks);
        if (format == 0 && tracks.size() != 1) {
            throw new Refusal("file", "A MIDI file of format 0 holds one track, not " + tracks.size() + ".");
        }
    }

    /** What the ticks of a file are. */
    public sealed interface Division {}

    /** @param ticks to a quarter note, 1–32,767 */
    public record Quarters(int ticks) implements Division {}

    /**
     * @param frames a second: 24, 25, 29 (for 29.97 drop-frame) or 30
     * @param ticks to a frame, 1–255
     */
    public record Frames(int frames, int ticks) implements Division {}

    /** Events in the order of their ticks; the end of the track is not among them. @param end tick of that end, never before the last event */
    public record Track(List<Event> events, long end) {
        public Track {
            events = List.copyOf(events);
            end = events.isEmpty()
                    ? end
                    : Math.max(end, events.get(events.size() - 1).tick());
        }
    }

    /** @param tick since the start of the track, 0 or above */
    public record Event(long tick, Content content) {}

    /** What an event is. */
    public sealed interface Content {}

    /** A message to a machine. */
    public record Channel(ChannelMessage message) implements Content {}

    /** @param status F0, or F7 for the further parts of a message and for anything else; @param data behind the length */
    public record SystemExclusive(int status, Bytes data) implements Content {}

    /** @param type 0–127, such as {@link #MARKER} */
    public record Meta(int type, Bytes data) implements Content {}

    /**
     * @param file the bytes of a file
     * @throws Refusal saying what is wrong with it, and at which byte
     */
    public static MidiFile read(byte[] file) {
        return new MidiFileReader(file).read();
    }

    /** The bytes of the file; reading them gives an equal one. */
    public byte[] write() {
        return MidiFileWriter.write(this);
    }
}
