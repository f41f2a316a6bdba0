package underbaton.wire.session;

import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;

/**
 * What one sender has told us, and how to mend it from a recovery journal after a loss (RFC 6295 §4–5, appendix A):
 * program with bank, controllers, notes. Only what differs is told again, so nothing that came through happens twice.
 * Chapters of other kinds are passed over. Not thread-safe.
 */
final class Recovery {

    private static final int CHANNELS = 16;
    private static final int NUMBERS = 128;
    private static final int ALL_SOUND_OFF = 120;
    private static final int ALL_NOTES_OFF = 123;

    private final Channel[] channels = new Channel[CHANNELS];

    private static final class Channel {
        private int program = -1;
        private int bankHigh = -1;
        private int bankLow = -1;
        private final int[] controllers = new int[NUMBERS];
        private final boolean[] sounds = new boolean[NUMBERS];
        /** The packet in which a note last began or ended. */
        private final long[] noteSince = new long[NUMBERS];

        Channel() {
            Arrays.fill(controllers, -1);
            Arrays.fill(noteSince, Long.MIN_VALUE);
        }
    }

    private Channel channel(int number) {
        if (channels[number] == null) {
            channels[number] = new Channel();
        }
        return channels[number];
    }

    /** Whether a lost message of this kind comes back by the journal. */
    static boolean mends(MidiMessage message) {
        return message instanceof NoteOn
                || message instanceof NoteOff
                || message instanceof ControlChange
                || message instanceof ProgramChange;
    }

    /** A message came, with the packet of this number (counted without wrapping). */
    void heard(MidiMessage message, long packet) {
        if (message instanceof ProgramChange p) {
            channel(p.channel()).program = p.program();
        } else if (message instanceof ControlChange c) {
            control(channel(c.channel()), c, packet);
        } else if (message instanceof NoteOn on) {
            note(channel(on.channel()), on.note(), on.velocity() > 0, packet);
        } else if (message instanceof NoteOff off) {
            note(channel(off.channel()), off.note(), false, packet);
        }
    }

    private static void note(Channel channel, int note, boolean sounds, long packet) {
        channel.sounds[note] = sounds;
        channel.noteSince[note] = packet;
    }

    private static void control(Channel channel, ControlChange c, long packet) {
        channel.controllers[c.controller()] = c.value();
        if (c.controller() == 0) {
            channel.bankHigh = c.value();
        } else if (c.controller() == 32) {
            channel.bankLow = c.value();
        } else if (c.controller() == ALL_SOUND_OFF || c.controller() == ALL_NOTES_OFF) {
            for (int note = 0; note < NUMBERS; note++) {
                note(channel, note, false, packet);
            }
        }
    }

    /** A new session begins. */
    void restart() {
        Arrays.fill(channels, null);
    }

    /**
     * What was lost, to be told now, before the packet's own commands.
     *
     * @param journal positioned at the journal's first byte
     * @param packet the number of the packet that it stands in, counted without wrapping
     * @return empty also when the journal cannot be read to its end
     */
    List<MidiMessage> mend(ByteBuffer journal, long packet) {
        List<MidiMessage> lost = new ArrayList<>();
        try {
            int header = journal.get() & 0xFF;
            int checkpoint = journal.getShort() & 0xFFFF;
            long since = packet - ((int) packet - checkpoint & 0xFFFF);
            if ((header & 0x40) != 0) {
                skip(journal, (journal.getShort(journal.position()) & 0x3FF));
            }
            int count = (header & 0x20) != 0 ? (header & 0x0F) + 1 : 0;
            for (int i = 0; i < count; i++) {
                channelJournal(journal, since, lost);
            }
        } catch (BufferUnderflowException | IllegalArgumentException | IndexOutOfBoundsException cutShort) {
            // What was read up to here is still true; the rest comes with a later journal.
            return tell(lost, packet - 1);
        }
        return tell(lost, packet - 1);
    }

    private List<MidiMessage> tell(List<MidiMessage> lost, long packet) {
        lost.forEach(m -> heard(m, packet));
        return lost;
    }

    private void channelJournal(ByteBuffer in, long since, List<MidiMessage> lost) {
        int start = in.position();
        int head = in.getShort() & 0xFFFF;
        int number = head >> 11 & 0x0F;
        int length = head & 0x3FF;
        int contents = in.get() & 0xFF;
        Channel channel = channel(number);
        if ((contents & 0x80) != 0) {
            chapterP(in, number, channel, lost);
        }
        if ((contents & 0x40) != 0) {
            chapterC(in, number, channel, lost);
        }
        if ((contents & 0x20) != 0) {
            skip(in, in.getShort(in.position()) & 0x3FF);
        }
        if ((contents & 0x10) != 0) {
            skip(in, 2);
        }
        if ((contents & 0x08) != 0) {
            chapterN(in, number, channel, since, lost);
        }
        in.position(start + Math.max(length, in.position() - start));
    }

    private static void skip(ByteBuffer in, int octets) {
        in.position(in.position() + octets);
    }

    private static void chapterP(ByteBuffer in, int number, Channel channel, List<MidiMessage> lost) {
        int program = in.get() & 0x7F;
        int high = in.get() & 0xFF;
        int low = in.get() & 0x7F;
        boolean banked = (high & 0x80) != 0;
        boolean sameBank = !banked || channel.bankHigh == (high & 0x7F) && Math.max(0, channel.bankLow) == low;
        if (channel.program == program && sameBank) {
            return;
        }
        if (banked) {
            lost.addAll(new ChannelMessage.BankProgram(number, (high & 0x7F) << 7 | low, program).commands());
        } else {
            lost.add(new ProgramChange(number, program));
        }
    }

    private static void chapterC(ByteBuffer in, int number, Channel channel, List<MidiMessage> lost) {
        int logs = (in.get() & 0x7F) + 1;
        for (int i = 0; i < logs; i++) {
            int controller = in.get() & 0x7F;
            int value = in.get() & 0xFF;
            // The A bit marks a value that counts toggles or calls, which we do not write and cannot mend by value.
            if ((value & 0x80) == 0 && channel.controllers[controller] != value) {
                lost.add(new ControlChange(number, controller, value));
            }
        }
    }

    private static void chapterN(ByteBuffer in, int number, Channel channel, long since, List<MidiMessage> lost) {
        int logs = in.get() & 0x7F;
        int range = in.get() & 0xFF;
        int low = range >> 4;
        int high = range & 0x0F;
        if (logs == 127 && low == 15 && high == 0) {
            logs = 128;
        }
        List<MidiMessage> begun = new ArrayList<>();
        for (int i = 0; i < logs; i++) {
            int note = in.get() & 0x7F;
            int velocity = in.get() & 0xFF;
            boolean play = (velocity & 0x80) != 0 && (velocity & 0x7F) > 0;
            // A note that sounds already was begun anew if we last heard of it before the journal's history begins.
            boolean news = !channel.sounds[note] || channel.noteSince[note] < since;
            if (play && news) {
                begun.add(new NoteOn(number, note, velocity & 0x7F));
            }
        }
        for (int octet = low; octet <= high; octet++) {
            int bits = in.get() & 0xFF;
            for (int bit = 0; bit < 8; bit++) {
                int note = octet * 8 + bit;
                if ((bits & 0x80 >> bit) != 0 && channel.sounds[note]) {
                    lost.add(new NoteOff(number, note, 0));
                }
            }
        }
        lost.addAll(begun);
    }
}
