package underbaton.core.midi;

import java.util.List;

/**
 * Messages that belong to one of sixteen channels (status 8n–En). Channels are 0–15 and numbers 0–127, as on the wire.
 * Each record refuses other numbers with an {@link IllegalArgumentException}.
 */
public sealed interface ChannelMessage extends MidiMessage {

    /** 0–15. */
    int channel();

    /** The same message on another channel, 0–15. */
    ChannelMessage onChannel(int channel);

    @Override
    default ChannelMessage shiftedTo(int channel) {
        return onChannel((channel() + channel) % 16);
    }

    /** Whether a message ends a note: by a note-off, or by a note-on of velocity 0 (MIDI 1.0). */
    static boolean endsNote(Message message) {
        return message instanceof NoteOff || message instanceof NoteOn on && on.velocity() == 0;
    }

    /** Status 8n. */
    record NoteOff(int channel, int note, int velocity) implements ChannelMessage {
        public NoteOff {
            Limits.channel(channel);
            Limits.seven("note", note);
            Limits.seven("velocity", velocity);
        }

        @Override
        public NoteOff onChannel(int other) {
            return new NoteOff(other, note, velocity);
        }

        @Override
        public Bytes encode() {
            return Bytes.of(0x80 | channel, note, velocity);
        }
    }

    /** Status 9n. Velocity 0 means that the note ends. */
    record NoteOn(int channel, int note, int velocity) implements ChannelMessage {
        public NoteOn {
            Limits.channel(channel);
            Limits.seven("note", note);
            Limits.seven("velocity", velocity);
        }

        @Override
        public NoteOn onChannel(int other) {
            return new NoteOn(other, note, velocity);
        }

        @Override
        public Bytes encode() {
            return Bytes.of(0x90 | channel, note, velocity);
        }
    }

    /** Status An: pressure of one held note. */
    record PolyPressure(int channel, int note, int pressure) implements ChannelMessage {
        public PolyPressure {
            Limits.channel(channel);
            Limits.seven("note", note);
            Limits.seven("pressure", pressure);
        }

        @Override
        public PolyPressure onChannel(int other) {
            return new PolyPressure(other, note, pressure);
        }

        @Override
        public Bytes encode() {
            return Bytes.of(0xA0 | channel, note, pressure);
        }
    }

    /** Status Bn. */
    record ControlChange(int channel, int controller, int value) implements ChannelMessage {
        public ControlChange {
            Limits.channel(channel);
            Limits.seven("controller", controller);
            Limits.seven("value", value);
        }

        @Override
        public ControlChange onChannel(int other) {
            return new ControlChange(other, controller, value);
        }

        @Override
        public Bytes encode() {
            return Bytes.of(0xB0 | channel, controller, value);
        }
    }

    /** Status Cn. */
    record ProgramChange(int channel, int program) implements ChannelMessage {
        public ProgramChange {
            Limits.channel(channel);
            Limits.seven("program", program);
        }

        @Override
        public ProgramChange onChannel(int other) {
            return new ProgramChange(other, program);
        }

        @Override
        public Bytes encode() {
            return Bytes.of(0xC0 | channel, program);
        }
    }

    /**
     * A bank select (controllers 0 and 32) and the program change it belongs to, always sent together and in that order.
     *
     * @param bank 0–16383: the two controllers as one number
     */
    record BankProgram(int channel, int bank, int program) implements ChannelMessage {
        public BankProgram {
            Limits.channel(channel);
            Limits.fourteen("bank", bank);
            Limits.seven("program", program);
        }

        @Override
        public BankProgram onChannel(int other) {
            return new BankProgram(other, bank, program);
        }

        @Override
        public Bytes encode() {
            return commands().stream().map(MidiMessage::encode).reduce(Bytes.NONE, Bytes::then);
        }

        @Override
        public List<MidiMessage> commands() {
            return List.of(
                    new ControlChange(channel, 0, bank >> 7),
                    new ControlChange(channel, 32, bank & 0x7F),
                    new ProgramChange(channel, program));
        }
    }

    /** Status Dn. */
    record ChannelPressure(int channel, int pressure) implements ChannelMessage {
        public ChannelPressure {
            Limits.channel(channel);
            Limits.seven("pressure", pressure);
        }

        @Override
        public ChannelPressure onChannel(int other) {
            return new ChannelPressure(other, pressure);
        }

        @Override
        public Bytes encode() {
            return Bytes.of(0xD0 | channel, pressure);
        }
    }

    /**
     * Status En, low seven bits first.
     *
     * @param bend 0–16383; {@link #CENTRE} is no bend
     */
    record PitchBend(int channel, int bend) implements ChannelMessage {
        public static final int CENTRE = 0x2000;

        public PitchBend {
            Limits.channel(channel);
            Limits.fourteen("bend", bend);
        }

        @Override
        public PitchBend onChannel(int other) {
            return new PitchBend(other, bend);
        }

        @Override
        public Bytes encode() {
            return Bytes.of(0xE0 | channel, bend & 0x7F, bend >> 7);
        }
    }

    /**
     * @param status 80–EF
     * @param first 0–127
     * @param second 0–127; ignored by messages of one data byte
     */
    static ChannelMessage decode(int status, int first, int second) {
        int channel = status & 0x0F;
        return switch (status & 0xF0) {
            case 0x80 -> new NoteOff(channel, first, second);
            case 0x90 -> new NoteOn(channel, first, second);
            case 0xA0 -> new PolyPressure(channel, first, second);
            case 0xB0 -> new ControlChange(channel, first, second);
            case 0xC0 -> new ProgramChange(channel, first);
            case 0xD0 -> new ChannelPressure(channel, first);
            case 0xE0 -> new PitchBend(channel, first | second << 7);
            default -> throw new IllegalArgumentException("no channel status: " + Integer.toHexString(status));
        };
    }
}
