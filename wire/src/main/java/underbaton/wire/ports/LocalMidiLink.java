package underbaton.wire.ports;

import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.SysexMessage;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.MidiParser;
import underbaton.core.midi.SysEx;
import underbaton.core.perform.Clock;
import underbaton.core.signal.Signal;
import underbaton.wire.Arrival;
import underbaton.wire.Health;
import underbaton.wire.Link;

/**
 * The way out over a MIDI port of this computer, and in where the port has an in of the same name. The port may be
 * plugged in, pulled out and plugged in again; it is looked for twice a second.
 */
public final class LocalMidiLink implements Link {

    private static final long LOOK_EVERY_NANOS = 500_000_000L;
    private static final int LONGEST_EXCLUSIVE = SysEx.LONGEST;

    private final String name;
    private final Clock clock;
    private final Ear ear;
    private final Loop keeper;
    private volatile Port port;
    private volatile long lastHeardNanos;
    private volatile String trouble;

    /** The open port. */
    private record Port(MidiDevice out, Receiver receiver, Optional<MidiDevice> in) {}

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
        Port to = port;
        if (to == null) {
            return new NotSent(trouble);
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
        return new Health(port != null, -1, -1, lastHeardNanos, port != null ? "" : trouble);
    }

    /** A cable never says whether anything arrived. */
    @Override
    public Arrival arrival() {
        return Arrival.NO_WORD;
    }

    @Override
    public void close() {
        keeper.close();
        letGo();
    }

    // ---- the keeper's thread

    private void keep() {
        boolean there = LocalPorts.out(name).isPresent();
        Port now = port;
        if (now != null && (!there || !now.out.isOpen())) {
            trouble = missing();
            letGo();
            ear.changed();
        } else if (now == null && there) {
            open();
        }
        LockSupport.parkNanos(this, LOOK_EVERY_NANOS);
    }

    private void open() {
        try {
            MidiDevice out = LocalPorts.out(name).orElseThrow(() -> new MidiUnavailableException("it is gone again"));
            out.open();
            Optional<MidiDevice> in = LocalPorts.in(name);
            if (in.isPresent()) {
                in.get().open();
                in.get().getTransmitter().setReceiver(new Listening());
            }
            port = new Port(out, out.getReceiver(), in);
            ear.changed();
        } catch (MidiUnavailableException taken) {
            trouble = "the MIDI port “" + name + "” cannot be opened: " + taken.getMessage()
                    + "; does another program hold it?";
        }
    }

    private synchronized void letGo() {
        Port old = port;
        port = null;
        if (old != null) {
            old.in.ifPresent(MidiDevice::close);
            old.receiver.close();
            old.out.close();
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
