package underbaton.wire.session;

import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.ChannelMessage.PolyPressure;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.Exclusive;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.SystemCommon.SongSelect;
import underbaton.core.midi.SystemCommon.TuneRequest;
import underbaton.wire.session.ChannelHistory.Parameter;

/**
 * What one sender has told us, and how to mend it from a recovery journal after a loss (RFC 6295 §4–5, appendices A and
 * B). Only what differs is told again, so nothing that came through happens twice; what was sent again with the same
 * value is told from its count, or from its place in a journal whose history begins behind the last time we heard it.
 * Chapters that a technician's messages do not use (E, V, Q, F) are passed over. Not thread-safe.
 */
final class Recovery {

    private static final int CHANNELS = 16;
    private static final int NUMBERS = 128;
    private static final int DATA_HIGH = 6;
    private static final int DATA_LOW = 38;
    private static final int FIRST_SELECTION = 98;
    /** Half the circle of a number of seven bits: what is farther lies behind. */
    private static final int HALF = 64;

    private static final int FULL = 127;
    private static final long NEVER = Long.MIN_VALUE;

    private final Channel[] channels = new Channel[CHANNELS];
    private int exclusives;
    private int song = -1;
    private long songSince = NEVER;
    private int tunes;
    private int resets;

    private static final class Channel {
        private int program = -1;
        private long programSince = NEVER;
        private int bankHigh = -1;
        private int bankLow = -1;
        private final int[] controllers = new int[NUMBERS];
        private final long[] controllerSince = new long[NUMBERS];
        private final int[] counts = new int[NUMBERS];
        private final int[] toggles = new int[NUMBERS];
        private final Map<Parameter, List<Integer>> parameters = new HashMap<>();
        private final int[] selection = {-1, -1, -1, -1};
        private boolean registered;
        private int bend = -1;
        private int pressure = -1;
        private final int[] keyPressures = new int[NUMBERS];
        private final boolean[] sounds = new boolean[NUMBERS];
        /** The packet in which a note last began or ended. */
        private final long[] noteSince = new long[NUMBERS];

        Channel() {
            Arrays.fill(controllers, -1);
            Arrays.fill(controllerSince, NEVER);
            Arrays.fill(keyPressures, -1);
            Arrays.fill(noteSince, NEVER);
        }

        Parameter selected() {
            return new Parameter(!registered, selection[registered ? 3 : 1], selection[registered ? 2 : 0]);
        }
    }

    private Channel channel(int number) {
        if (channels[number] == null) {
            channels[number] = new Channel();
        }
        return channels[number];
    }

    /** A message came, with the packet of this number (counted without wrapping). */
    void heard(MidiMessage message, long packet) {
        if (message instanceof ChannelMessage m) {
            heard(channel(m.channel()), m, packet);
        } else if (message instanceof Exclusive) {
            exclusives = exclusives + 1 & 0xFF;
        } else if (message instanceof SongSelect select) {
            song = select.song();
            songSince = packet;
        } else if (message instanceof TuneRequest) {
            tunes = tunes + 1 & 0x7F;
        } else if (message == RealTime.RESET) {
            resets = resets + 1 & 0x7F;
        }
    }

    private static void heard(Channel channel, ChannelMessage message, long packet) {
        if (message instanceof ProgramChange p) {
            channel.program = p.program();
            channel.programSince = packet;
        } else if (message instanceof ControlChange c) {
            control(channel, c, packet);
        } else if (message instanceof NoteOn on) {
            note(channel, on.note(), on.velocity() > 0, packet);
        } else if (message instanceof NoteOff off) {
            note(channel, off.note(), false, packet);
        } else if (message instanceof PitchBend b) {
            channel.bend = b.bend();
        } else if (message instanceof ChannelPressure p) {
            channel.pressure = p.pressure();
        } else if (message instanceof PolyPressure p) {
            channel.keyPressures[p.note()] = p.pressure();
        }
    }

    private static void note(Channel channel, int note, boolean sounds, long packet) {
        channel.sounds[note] = sounds;
        channel.noteSince[note] = packet;
    }

    private static void control(Channel channel, ControlChange c, long packet) {
        int number = c.controller();
        boolean toggled = Controllers.isOn(channel.controllers[number]) != Controllers.isOn(c.value());
        channel.toggles[number] = channel.toggles[number] + (toggled ? 1 : 0) & 0x3F;
        channel.counts[number] = channel.counts[number] + 1 & 0x3F;
        channel.controllers[number] = c.value();
        channel.controllerSince[number] = packet;
        if (number == 0) {
            channel.bankHigh = c.value();
        } else if (number == 32) {
            channel.bankLow = c.value();
        } else if (number == Controllers.ALL_SOUND_OFF || number == Controllers.ALL_NOTES_OFF) {
            for (int note = 0; note < NUMBERS; note++) {
                note(channel, note, false, packet);
            }
        } else if (number >= FIRST_SELECTION && number < FIRST_SELECTION + 4) {
            channel.selection[number - FIRST_SELECTION] = c.value();
            channel.registered = number >= FIRST_SELECTION + 2;
        } else if (number == DATA_HIGH) {
            channel.parameters.put(channel.selected(), List.of(c.value()));
        } else if (number == DATA_LOW) {
            List<Integer> before = channel.parameters.getOrDefault(channel.selected(), List.of(-1));
            channel.parameters.put(channel.selected(), List.of(before.get(0), c.value()));
        }
    }

    /** A new session begins. */
    void restart() {
        Arrays.fill(channels, null);
        exclusives = 0;
        song = -1;
        songSince = NEVER;
        tunes = 0;
        resets = 0;
    }

    // ---- reading a journal

    /** What a journal tells anew: each is heard the moment it is found, so that what follows builds on it. */
    private final class Mending {
        private final List<MidiMessage> lost = new ArrayList<>();
        private final ByteBuffer in;
        private final long packet;
        private final long since;

        /** @param since the first packet that the journal's history covers */
        Mending(ByteBuffer in, long packet, long since) {
            this.in = in;
            this.packet = packet;
            this.since = since;
        }

        void tell(MidiMessage message) {
            lost.add(message);
            heard(message, packet - 1);
        }

        int octet() {
            return in.get() & 0xFF;
        }

        int seven() {
            return in.get() & 0x7F;
        }

        void skip(int octets) {
            in.position(in.position() + octets);
        }
    }

    /**
     * What was lost, to be told now, before the packet's own commands.
     *
     * @param journal positioned at the journal's first byte
     * @param packet the number of the packet that it stands in, counted without wrapping; the one before it did not come
     * @return in the journal's order; empty also when the journal cannot be read to its end
     */
    List<MidiMessage> mend(ByteBuffer journal, long packet) {
        List<MidiMessage> nothing = List.of();
        if (journal.remaining() < 3) {
            return nothing;
        }
        int header = journal.get() & 0xFF;
        int checkpoint = journal.getShort() & 0xFFFF;
        long since = packet - ((int) packet - checkpoint & 0xFFFF);
        Mending mending = new Mending(journal, packet, since);
        try {
            if ((header & 0x40) != 0) {
                systemJournal(mending);
            }
            int count = (header & 0x20) != 0 ? (header & 0x0F) + 1 : 0;
            for (int i = 0; i < count; i++) {
                channelJournal(mending);
            }
        } catch (BufferUnderflowException | IllegalArgumentException | IndexOutOfBoundsException cutShort) {
            // What was read up to here is still true; the rest comes with a later journal.
            return mending.lost;
        }
        return mending.lost;
    }

    private void systemJournal(Mending m) {
        int start = m.in.position();
        int head = m.in.getShort() & 0xFFFF;
        int end = start + Math.max(2, head & 0x3FF);
        if ((head & 0x4000) != 0) {
            chapterD(m);
        }
        boolean othersBetween = (head & 0x3800) != 0;
        if ((head & 0x0400) != 0 && !othersBetween) {
            while (m.in.position() < end) {
                chapterX(m);
            }
        }
        m.in.position(end);
    }

    private void chapterD(Mending m) {
        int contents = m.octet();
        if ((contents & 0x40) != 0) {
            for (int missing = m.seven() - resets & 0x7F; missing > 0 && missing < HALF; missing--) {
                m.tell(RealTime.RESET);
            }
        }
        if ((contents & 0x20) != 0) {
            for (int missing = m.seven() - tunes & 0x7F; missing > 0 && missing < HALF; missing--) {
                m.tell(new TuneRequest());
            }
        }
        if ((contents & 0x10) != 0) {
            int told = m.seven();
            if (told != song || songSince < m.since) {
                m.tell(new SongSelect(told));
            }
        }
        // J and K carry their own length in ten bits, Y and Z in five.
        for (int flag = 0x08; flag >= 0x04; flag >>= 1) {
            if ((contents & flag) != 0) {
                m.skip(Math.max(2, m.in.getShort(m.in.position()) & 0x3FF));
            }
        }
        for (int flag = 0x02; flag >= 0x01; flag >>= 1) {
            if ((contents & flag) != 0) {
                m.skip(Math.max(1, m.in.get(m.in.position()) & 0x1F));
            }
        }
    }

    /** A log that has its count and its data, from the first octet on. */
    private void chapterX(Mending m) {
        int flags = m.octet();
        if ((flags & 0x40) != 0) {
            m.skip(1);
        }
        boolean counted = (flags & 0x20) != 0;
        int count = counted ? m.octet() : 0;
        boolean later = (flags & 0x10) != 0;
        while (later && (m.octet() & 0x80) != 0) {
            // The number of the first octet is written in groups of seven bits; such a log is not told.
            continue;
        }
        byte[] body = new byte[m.in.remaining()];
        int length = 0;
        if ((flags & 0x08) != 0) {
            int octet;
            do {
                octet = m.octet();
                body[length++] = (byte) (octet & 0x7F);
            } while ((octet & 0x80) == 0);
        }
        int missing = count - exclusives & 0xFF;
        boolean whole = (flags & 0x03) == 0x03 && !later;
        if (counted && whole && missing > 0 && missing < NUMBERS) {
            exclusives = count - 1 & 0xFF;
            m.tell(Exclusive.decode(Bytes.copyOf(body, 0, length)));
        }
    }

    private void channelJournal(Mending m) {
        int start = m.in.position();
        int head = m.in.getShort() & 0xFFFF;
        int number = head >> 11 & 0x0F;
        int length = head & 0x3FF;
        int contents = m.octet();
        Channel channel = channel(number);
        if ((contents & 0x80) != 0) {
            chapterP(m, number, channel);
        }
        if ((contents & 0x40) != 0) {
            chapterC(m, number, channel);
        }
        if ((contents & 0x20) != 0) {
            chapterM(m, number, channel);
        }
        if ((contents & 0x10) != 0) {
            int bend = m.seven() | m.seven() << 7;
            if (bend != channel.bend) {
                m.tell(new PitchBend(number, bend));
            }
        }
        if ((contents & 0x08) != 0) {
            chapterN(m, number, channel);
        }
        if ((contents & 0x04) != 0) {
            m.skip(2 * (m.seven() + 1));
        }
        if ((contents & 0x02) != 0) {
            int pressure = m.seven();
            if (pressure != channel.pressure) {
                m.tell(new ChannelPressure(number, pressure));
            }
        }
        if ((contents & 0x01) != 0) {
            for (int logs = m.seven() + 1; logs > 0; logs--) {
                int note = m.seven();
                int pressure = m.seven();
                if (pressure != channel.keyPressures[note]) {
                    m.tell(new PolyPressure(number, note, pressure));
                }
            }
        }
        m.in.position(start + Math.max(length, m.in.position() - start));
    }

    /** The S bit: what was said in the packet just before does not have it; and that packet is one of those lost. */
    private static boolean isOlder(int octet) {
        return (octet & 0x80) != 0;
    }

    private static void chapterP(Mending m, int number, Channel channel) {
        int first = m.octet();
        int program = first & 0x7F;
        int high = m.octet();
        int low = m.seven();
        boolean banked = (high & 0x80) != 0;
        boolean sameBank = !banked || channel.bankHigh == (high & 0x7F) && Math.max(0, channel.bankLow) == low;
        if (channel.program == program && sameBank && channel.programSince >= m.since && isOlder(first)) {
            return;
        }
        if (banked) {
            new ChannelMessage.BankProgram(number, (high & 0x7F) << 7 | low, program)
                    .commands()
                    .forEach(m::tell);
        } else {
            m.tell(new ProgramChange(number, program));
        }
    }

    private static void chapterC(Mending m, int number, Channel channel) {
        for (int logs = m.seven() + 1; logs > 0; logs--) {
            int first = m.octet();
            int controller = first & 0x7F;
            int value = m.octet();
            int known = channel.controllers[controller];
            if ((value & 0x80) == 0) {
                if (known != value || channel.controllerSince[controller] < m.since || !isOlder(first)) {
                    m.tell(new ControlChange(number, controller, value));
                }
            } else if ((value & 0x40) != 0) {
                int missing = (value & 0x3F) - channel.counts[controller] & 0x3F;
                for (; missing > 0 && missing < HALF / 2 && known >= 0; missing--) {
                    m.tell(new ControlChange(number, controller, known));
                }
            } else {
                int missing = (value & 0x3F) - channel.toggles[controller] & 0x3F;
                for (; missing > 0 && missing < HALF / 2; missing--) {
                    m.tell(new ControlChange(
                            number, controller, Controllers.isOn(channel.controllers[controller]) ? 0 : FULL));
                }
            }
        }
    }

    private static void chapterM(Mending m, int number, Channel channel) {
        int start = m.in.position();
        int head = m.in.getShort() & 0xFFFF;
        int end = start + Math.max(2, head & 0x3FF);
        if ((head & 0x4000) != 0) {
            m.skip(1);
        }
        boolean shortNumbers = (head & 0x1800) != 0 && (head & 0x0400) != 0;
        while (m.in.position() < end && !shortNumbers) {
            int low = m.seven();
            int high = m.octet();
            int fields = m.octet();
            int dataHigh = (fields & 0x80) != 0 ? m.seven() : -1;
            int dataLow = (fields & 0x40) != 0 ? m.seven() : -1;
            m.skip(2 * Integer.bitCount(fields & 0x30) + Integer.bitCount(fields & 0x08));
            parameter(m, number, channel, new Parameter((high & 0x80) != 0, high & 0x7F, low), dataHigh, dataLow);
        }
        m.in.position(end);
    }

    private static void parameter(
            Mending m, int number, Channel channel, Parameter parameter, int dataHigh, int dataLow) {
        List<Integer> known = channel.parameters.getOrDefault(parameter, List.of());
        boolean sameHigh = dataHigh < 0 || !known.isEmpty() && known.get(0) == dataHigh;
        boolean sameLow = dataLow < 0 || known.size() > 1 && known.get(1) == dataLow;
        if (sameHigh && sameLow && channel.selected().equals(parameter)) {
            return;
        }
        int first = parameter.own() ? FIRST_SELECTION : FIRST_SELECTION + 2;
        m.tell(new ControlChange(number, first + 1, parameter.high()));
        m.tell(new ControlChange(number, first, parameter.low()));
        if (dataHigh >= 0 && !(sameHigh && sameLow)) {
            m.tell(new ControlChange(number, DATA_HIGH, dataHigh));
        }
        if (dataLow >= 0 && !(sameHigh && sameLow)) {
            m.tell(new ControlChange(number, DATA_LOW, dataLow));
        }
    }

    private static void chapterN(Mending m, int number, Channel channel) {
        int logs = m.seven();
        int range = m.octet();
        int low = range >> 4;
        int high = range & 0x0F;
        if (logs == 127 && low == 15 && high == 0) {
            logs = 128;
        }
        List<MidiMessage> begun = new ArrayList<>();
        for (int i = 0; i < logs; i++) {
            int first = m.octet();
            int note = first & 0x7F;
            int velocity = m.octet();
            boolean play = (velocity & 0x80) != 0 && (velocity & 0x7F) > 0;
            // A note that sounds already was begun anew if we last heard of it before the journal's history begins.
            boolean news = !channel.sounds[note] || channel.noteSince[note] < m.since || !isOlder(first);
            if (play && news) {
                begun.add(new NoteOn(number, note, velocity & 0x7F));
            }
        }
        for (int octet = low; octet <= high; octet++) {
            int bits = m.octet();
            for (int bit = 0; bit < 8; bit++) {
                int note = octet * 8 + bit;
                if ((bits & 0x80 >> bit) != 0 && channel.sounds[note]) {
                    m.tell(new NoteOff(number, note, 0));
                }
            }
        }
        begun.forEach(m::tell);
    }
}
