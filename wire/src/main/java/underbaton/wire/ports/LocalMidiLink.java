package underbaton.wire.ports;

import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.SysexMessage;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.MidiParser;
import underbaton.core.midi.SysEx;
import underbaton.core.signal.Signal;
import underbaton.wire.Arrival;
import underbaton.wire.Health;
import underbaton.wire.Link;

/**
 * The way out over a MIDI port of this computer, and in where there is an in of the same name; one of the two is enough. The port may be
 * plugged in, pulled out and plugged in again; it is looked for twice a second.
 */
public final class LocalMidiLink implements Link {

    private static final long LOOK_EVERY_NANOS = 500_000_000L;
    private static final String HELD = "; does another program hold it?";
    private static final int LONGEST_EXCLUSIVE = SysEx.LONGEST;

    private final String name;
    private final Clock clock;
    private final Ear ear;
    private final Loop keeper;
    /** The open way out; null for none. */
    private volatile Out out;
    /** The open way in; null for none. */
    private volatile MidiDevice in;
    /** Whether this computer has a way out of that name, and not only a way in. */
    private volatile boolean hasOut = true;

    private volatile long lastHeardNanos;
    private volatile String trouble;
    /** Why it is not heard; empty where it is, or has no way in. */
    private volatile String deaf = "";

    private record Out(MidiDevice device, Receiver receiver) {}

    /** Begins to look for a port of this name at once, on a loop of its own. */
    public LocalMidiLink(String name, Clock clock, Loops loops, Ear ear) {
        this.name = name;
        this.clock = clock;
        this.ear = ear;
        this.trouble = missing();
        keeper = loops.start("MIDI port " + name, this::keep);
    }

    private String missing() {
        return "this computer has no MIDI port “" + name + "” now; is its cable in, and the machine on?";
    }

    @Override
    public Outcome send(Message message) {
        if (!(message instanceof MidiMessage midi)) {
            return new NotSent("this machine is reached by MIDI and the phrase is OSC");
        }
        Out to = out;
        if (to == null) {
            return new NotSent(hasOut ? trouble : "the MIDI port “" + name + "” has no way out; it is only heard");
        }
        try {
            for (MidiMessage command : midi.commands()) {
                to.receiver.send(javax(command.encode().toArray()), -1);
            }
            return new Sent(midi.encode());
        } catch (InvalidMidiDataException | IllegalStateException gone) {
            return new NotSent(missing());
        }
    }

    private static javax.sound.midi.MidiMessage javax(byte[] bytes) throws InvalidMidiDataException {
        int status = bytes[0] & 0xFF;
        if (status == SysexMessage.SYSTEM_EXCLUSIVE) {
            return new SysexMessage(bytes, bytes.length);
        }
        int first = bytes.length > 1 ? bytes[1] : 0;
        int second = bytes.length > 2 ? bytes[2] : 0;
        return bytes.length == 1 ? new ShortMessage(status) : new ShortMessage(status, first, second);
    }

    @Override
    public Health health() {
        boolean reached = isReached();
        return new Health(reached, -1, -1, lastHeardNanos, reached ? deaf : trouble);
    }

    /** A cable never says whether anything arrived. */
    @Override
    public Arrival arrival() {
        return Arrival.NO_WORD;
    }

    /** What has no way out is reached when it is heard. */
    private boolean isReached() {
        return out != null || !hasOut && in != null;
    }

    @Override
    public void close() {
        keeper.close();
        letGoOut();
        letGoIn();
    }

    // ---- the keeper's thread

    private void keep() {
        boolean wasReached = isReached();
        String wasDeaf = deaf;
        Optional<MidiDevice> outThere = LocalPorts.out(name);
        Optional<MidiDevice> inThere = LocalPorts.in(name);
        hasOut = outThere.isPresent() || inThere.isEmpty();
        keepOut(outThere);
        keepIn(inThere);
        if (isReached() != wasReached || !deaf.equals(wasDeaf)) {
            ear.changed();
        }
        LockSupport.parkNanos(this, LOOK_EVERY_NANOS);
    }

    private void keepOut(Optional<MidiDevice> there) {
        if (out != null && (there.isEmpty() || !out.device.isOpen())) {
            letGoOut();
        }
        if (there.isEmpty()) {
            trouble = missing();
        } else if (out == null) {
            MidiDevice device = there.get();
            try {
                device.open();
                out = new Out(device, device.getReceiver());
            } catch (MidiUnavailableException taken) {
                device.close();
                trouble = "the MIDI port “" + name + "” cannot be opened: " + taken.getMessage() + HELD;
            }
        }
    }

    /** Each way by itself: who cannot be heard can be spoken to all the same. */
    private void keepIn(Optional<MidiDevice> there) {
        if (in != null && (there.isEmpty() || !in.isOpen())) {
            letGoIn();
        }
        if (there.isEmpty()) {
            deaf = "";
        } else if (in == null) {
            MidiDevice device = there.get();
            try {
                device.open();
                device.getTransmitter().setReceiver(new Listening());
                in = device;
                deaf = "";
            } catch (MidiUnavailableException taken) {
                device.close();
                deaf = "it cannot be heard: " + taken.getMessage() + HELD;
            }
        }
    }

    private synchronized void letGoOut() {
        Out old = out;
        out = null;
        if (old != null) {
            old.receiver.close();
            old.device.close();
        }
    }

    private synchronized void letGoIn() {
        MidiDevice old = in;
        in = null;
        if (old != null) {
            old.close();
        }
    }

    private final class Listening implements Receiver {
        private final MidiParser parser = new MidiParser(LONGEST_EXCLUSIVE, new MidiParser.Sink() {
            @Override
            public void message(MidiMessage message) {
                ear.heard(Signal.of(message, lastHeardNanos));
            }

            @Override
            public void trouble(MidiParser.Trouble what) {
                // The parser has found its way again by itself.
            }
        });

        @Override
        public void send(javax.sound.midi.MidiMessage message, long timeStamp) {
            lastHeardNanos = clock.nanos();
            parser.accept(message.getMessage(), 0, message.getLength());
        }

        @Override
        public void close() {
            // Nothing is held.
        }
    }
}
