package underbaton.wire.ports;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.Transmitter;
import javax.sound.midi.spi.MidiDeviceProvider;

/** Ports for tests, found by the JDK's own discovery: with one way or both, plugged in and pulled out, and held by another program. */
public final class StagePorts extends MidiDeviceProvider {

    static final List<Way> WAYS = new CopyOnWriteArrayList<>();

    @Override
    public MidiDevice.Info[] getDeviceInfo() {
        return WAYS.stream().map(w -> w.info).toArray(MidiDevice.Info[]::new);
    }

    @Override
    public MidiDevice getDevice(MidiDevice.Info info) {
        return WAYS.stream()
                .filter(w -> w.info == info)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("none of these"));
    }

    private static final class Name extends MidiDevice.Info {
        Name(String name) {
            super(name, "made up", "a port for tests", "1");
        }
    }

    /** The out of a port, or its in. */
    static final class Way implements MidiDevice, Receiver, Transmitter {
        final MidiDevice.Info info;
        final boolean out;
        final List<MidiMessage> got = new CopyOnWriteArrayList<>();
        volatile boolean held;
        volatile int openings;
        private volatile boolean open;
        private volatile Receiver hears;

        Way(String name, boolean out) {
            info = new Name(name);
            this.out = out;
        }

        /** Somebody plays on it. */
        void says(MidiMessage message) {
            Receiver to = hears;
            if (open && to != null) {
                to.send(message, -1);
            }
        }

        @Override
        public MidiDevice.Info getDeviceInfo() {
            return info;
        }

        @Override
        public void open() throws MidiUnavailableException {
            if (held) {
                throw new MidiUnavailableException("busy");
            }
            openings += open ? 0 : 1;
            open = true;
        }

        @Override
        public void close() {
            // A receiver's end is not its port's, and both are one here.
            open = false;
            hears = null;
        }

        @Override
        public boolean isOpen() {
            return open;
        }

        @Override
        public long getMicrosecondPosition() {
            return -1;
        }

        @Override
        public int getMaxReceivers() {
            return out ? -1 : 0;
        }

        @Override
        public int getMaxTransmitters() {
            return out ? 0 : -1;
        }

        @Override
        public Receiver getReceiver() {
            return this;
        }

        @Override
        public List<Receiver> getReceivers() {
            return new ArrayList<>();
        }

        @Override
        public Transmitter getTransmitter() {
            return this;
        }

        @Override
        public List<Transmitter> getTransmitters() {
            return new ArrayList<>();
        }

        @Override
        public void send(MidiMessage message, long timeStamp) {
            got.add(message);
        }

        @Override
        public void setReceiver(Receiver receiver) {
            hears = receiver;
        }
    }
}
