package underbaton.core.exchange;

import java.util.ArrayList;
import java.util.List;
import underbaton.core.exchange.MidiFile.Channel;
import underbaton.core.exchange.MidiFile.Content;
import underbaton.core.exchange.MidiFile.Division;
import underbaton.core.exchange.MidiFile.Event;
import underbaton.core.exchange.MidiFile.Frames;
import underbaton.core.exchange.MidiFile.Meta;
import underbaton.core.exchange.MidiFile.Quarters;
import underbaton.core.exchange.MidiFile.SystemExclusive;
import underbaton.core.exchange.MidiFile.Track;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.MidiParser;
import underbaton.core.rig.Refusal;

/** Reads a Standard MIDI File from bytes that may be anything. Every length is held against what is there. */
final class MidiFileReader {

    private static final int HEADER = 0x4D546864;
    private static final int TRACK = 0x4D54726B;
    private static final int RIFF = 0x52494646;
    private static final int MOST_TRACKS = 1024;
    private static final int VARIABLE_BYTES = 4;

    private final byte[] file;
    private int at;
    private int events;

    MidiFileReader(byte[] file) {
        this.file = file;
    }

    MidiFile read() {
        if (file.length > MidiFile.LARGEST) {
            throw refused("is larger than " + MidiFile.LARGEST / 1_000_000
                    + " MB, which no song is; check that it is the right one");
        }
        int kind = file.length < 4 ? 0 : number(4);
        if (kind == RIFF) {
            throw refused("is a MIDI file wrapped into RIFF; save it as a plain one, ending in .mid");
        }
        if (kind != HEADER) {
            throw refused("is no Standard MIDI File: it does not begin with “MThd”");
        }
        int length = chunkLength("its header");
        if (length < 6) {
            throw refused("has a header of " + length + " bytes, which should be 6");
        }
        int behind = at + length;
        int format = number(2);
        if (format > 1) {
            throw refused("has format " + format + "; only 0 and 1 can be read. Save it as format 1");
        }
        int count = number(2);
        if (count > MOST_TRACKS) {
            throw refused("has " + count + " tracks; at most " + MOST_TRACKS + " can be read");
        }
        Division division = division(number(2));
        at = behind;
        List<Track> tracks = new ArrayList<>();
        while (tracks.size() < count) {
            if (at == file.length) {
                throw refused("ends after " + tracks.size() + " of " + count + " tracks");
            }
            int chunk = number(4);
            int size = chunkLength("track " + (tracks.size() + 1));
            int end = at + size;
            if (chunk == TRACK) {
                tracks.add(track(end));
            }
            at = end;
        }
        return new MidiFile(format, division, tracks);
    }

    private Division division(int word) {
        if (word < 0x8000) {
            if (word == 0) {
                throw refused("counts 0 ticks to a quarter note");
            }
            return new Quarters(word);
        }
        int frames = 256 - (word >> 8);
        boolean known = frames == 24 || frames == 25 || frames == 29 || frames == 30;
        if (!known || (word & 0xFF) == 0) {
            throw refused("counts " + frames + " frames a second with " + (word & 0xFF)
                    + " ticks each, which is no time code");
        }
        return new Frames(frames, word & 0xFF);
    }

    private Track track(int end) {
        List<Event> events = new ArrayList<>();
        long tick = 0;
        int running = 0;
        while (at < end) {
            if (++this.events > MidiFile.MOST_EVENTS) {
                throw refused("has more than " + MidiFile.MOST_EVENTS
                        + " events, which no song of cues has; leave its sound tracks out");
            }
            tick += variable(end);
            int first = octet(end);
            if (first == 0xFF) {
                int type = octet(end);
                Bytes data = data(end);
                running = 0;
                if (type == MidiFile.END_OF_TRACK) {
                    return new Track(events, tick);
                }
                events.add(new Event(tick, meta(type, data)));
            } else if (first == 0xF0 || first == 0xF7) {
                running = 0;
                events.add(new Event(tick, new SystemExclusive(first, data(end))));
            } else {
                boolean status = first >= 0x80;
                running = status ? first : running;
                if (running == 0 || running > 0xEF) {
                    throw refused("has a byte " + Integer.toHexString(first).toUpperCase(java.util.Locale.ROOT)
                            + " where an event should begin");
                }
                int one = status ? octet(end) : first;
                int two = MidiParser.dataBytes(running) == 2 ? octet(end) : 0;
                if (one > 0x7F || two > 0x7F) {
                    throw refused("has a data byte above 7F");
                }
                events.add(new Event(tick, new Channel(ChannelMessage.decode(running, one, two))));
            }
        }
        throw refused("has a track that does not end");
    }

    private Content meta(int type, Bytes data) {
        if (type > 0x7F) {
            throw refused("has a meta event of type " + type + "; these end at 127");
        }
        if (type == MidiFile.TEMPO) {
            boolean whole = data.length() == 3;
            int micros = whole ? data.at(0) << 16 | data.at(1) << 8 | data.at(2) : 0;
            if (micros == 0) {
                throw refused("has a tempo of "
                        + (whole ? "0 µs a quarter note" : data.length() + " bytes, which should be 3"));
            }
        }
        if (type == MidiFile.METER && (data.length() != 4 || data.at(0) == 0 || data.at(1) > 6)) {
            throw refused("has a meter that cannot be");
        }
        return new Meta(type, data);
    }

    private Bytes data(int end) {
        int length = variable(end);
        if (length > end - at) {
            throw refused(
                    "says that an event is " + length + " bytes long, but " + (end - at) + " are left in its track");
        }
        Bytes data = Bytes.copyOf(file, at, length);
        at += length;
        return data;
    }

    /** A variable-length quantity: at most four bytes, 0–0FFFFFFF. */
    private int variable(int end) {
        int value = 0;
        for (int i = 0; i < VARIABLE_BYTES; i++) {
            int octet = octet(end);
            value = value << 7 | octet & 0x7F;
            if (octet < 0x80) {
                return value;
            }
        }
        throw refused("has a length of more than four bytes");
    }

    private int octet(int end) {
        if (at >= end) {
            throw refused("ends within an event");
        }
        return file[at++] & 0xFF;
    }

    private int chunkLength(String of) {
        int length = number(4);
        if (length < 0 || length > file.length - at) {
            throw refused("says that " + of + " is " + (length & 0xFFFFFFFFL) + " bytes long, but " + (file.length - at)
                    + " are left; it may have been cut off");
        }
        return length;
    }

    private int number(int octets) {
        if (file.length - at < octets) {
            throw refused("is cut off");
        }
        int value = 0;
        for (int i = 0; i < octets; i++) {
            value = value << 8 | file[at++] & 0xFF;
        }
        return value;
    }

    private Refusal refused(String why) {
        return new Refusal("file", "This file " + why + " (at byte " + at + ").");
    }
}
