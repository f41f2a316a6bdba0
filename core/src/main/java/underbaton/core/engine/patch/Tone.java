package underbaton.core.engine.patch;

import java.util.Optional;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.ChannelPressure;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.Controllers;
import underbaton.core.midi.Message;

/**
 * Something at an output that does not end by itself, and whose hands it is in. Immutable.
 *
 * @param holders by what is held down, how: the velocity of a note, the value of a pedal, the place of a wheel
 * @param begun how often it was begun: a note is to be ended as often
 * @param said the value that the output was told last
 */
public record Tone(PMap<Tone.Key, Integer> holders, int begun, int said) {

    public static final Tone NONE = new Tone(HashTreePMap.empty(), 0, -1);

    /** What does not end by itself. */
    public enum Kind {
        NOTE,
        PEDAL,
        BEND,
        PRESSURE
    }

    /**
     * A key, a pedal or a wheel of an input, or the same of an output.
     *
     * @param channel 0–15
     * @param number of the note or of the pedal's controller, 0–127; 0 for a wheel
     * @param relayId of an input, the relay that passes it on; 0 for the patch, and of an output
     */
    public record Key(int deviceId, int channel, Kind kind, int number, int relayId) {

        /** At an output, or played through the patch. */
        public Key(int deviceId, int channel, Kind kind, int number) {
            this(deviceId, channel, kind, number, 0);
        }

        /** What a message of a machine begins, holds or ends; empty for what ends by itself. */
        public static Optional<Key> of(int deviceId, Message message) {
            if (message instanceof NoteOn on) {
                return Optional.of(new Key(deviceId, on.channel(), Kind.NOTE, on.note()));
            }
            if (message instanceof NoteOff off) {
                return Optional.of(new Key(deviceId, off.channel(), Kind.NOTE, off.note()));
            }
            if (message instanceof ControlChange change && Controllers.PEDALS.contains(change.controller())) {
                return Optional.of(new Key(deviceId, change.channel(), Kind.PEDAL, change.controller()));
            }
            if (message instanceof PitchBend bend) {
                return Optional.of(new Key(deviceId, bend.channel(), Kind.BEND, 0));
            }
            return message instanceof ChannelPressure pressure
                    ? Optional.of(new Key(deviceId, pressure.channel(), Kind.PRESSURE, 0))
                    : Optional.empty();
        }

        Key passedOnBy(int newRelayId) {
            return new Key(deviceId, channel, kind, number, newRelayId);
        }

        /** What says that it is held so. @param value velocity of a note, value of a pedal, place of a wheel */
        ChannelMessage message(int value) {
            return switch (kind) {
                case NOTE -> new NoteOn(channel, number, value);
                case PEDAL -> new ControlChange(channel, number, value);
                case BEND -> new PitchBend(channel, value);
                case PRESSURE -> new ChannelPressure(channel, value);
            };
        }

        /** What ends it. @param velocity of a note's release, 0–127 */
        ChannelMessage end(int velocity) {
            return switch (kind) {
                case NOTE -> new NoteOff(channel, number, velocity);
                case BEND -> message(PitchBend.CENTRE);
                case PEDAL, PRESSURE -> message(0);
            };
        }
    }

    /** Whether a message ends what it speaks of. */
    static boolean isEnd(Message message) {
        return ChannelMessage.endsNote(message)
                || message instanceof ControlChange change && change.value() == 0
                || message instanceof PitchBend bend && bend.bend() == PitchBend.CENTRE
                || message instanceof ChannelPressure pressure && pressure.pressure() == 0;
    }

    /** How far something is down: the velocity of a note, the value of a pedal, the place of a wheel. */
    static int value(Message message) {
        if (message instanceof NoteOn on) {
            return on.velocity();
        }
        if (message instanceof ControlChange change) {
            return change.value();
        }
        return message instanceof PitchBend bend ? bend.bend() : ((ChannelPressure) message).pressure();
    }

    /** Held by one more key, pressed as hard as this, 0–127. */
    public Tone heldBy(Key hand, int value) {
        return new Tone(holders.plus(hand, value), begun, said);
    }

    /** This key holds it no longer. */
    public Tone letGoBy(Key hand) {
        return new Tone(holders.minus(hand), begun, said);
    }

    /** It was struck once more while it sounded. */
    public Tone begunAgain() {
        return new Tone(holders, begun + 1, said);
    }

    /** It was told with this velocity or value, 0–127. */
    public Tone told(int value) {
        return new Tone(holders, begun, value);
    }

    /** How far it is down: as far as the lowest of all hands. */
    public int most() {
        return holders.values().stream().mapToInt(v -> v).max().orElse(0);
    }

    /** Whether nobody holds it any more. */
    public boolean isFree() {
        return holders.isEmpty();
    }
}
