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

/**
 * MIDI ports made of nothing but memory: what goes into the out of a loop comes out of its in. For machines without MIDI
 * hardware, and for tests; found by the very way in which the JDK finds hardware. Loops can be plugged in and pulled out
 * like the real thing.
 */
public final class LoopPorts extends MidiDeviceProvider {

    private static final CopyOnWriteArrayList<Loop> LOOPS = new CopyOnWriteArrayList<>(List.of(new Loop("Loop 1")));

    /** Plugs a loop in, if there is none of that name. */
    public static void plug(String name) {
        if (LOOPS.stream().noneMatch(l -> l.name.equals(name))) {
            LOOPS.add(new Loop(name));
        }
    }

    /** Pulls a loop out; those who hold it open find it dead. */
    public static void unplug(String name) {
        for (Loop loop : LOOPS) {
            if (loop.name.equals(name)) {
                LOOPS.remove(loop);
                loop.out.close();
                loop.in.close();
            }
        }
    }

    @Override
    public MidiDevice.Info[] getDeviceInfo() {
        List<MidiDevice.Info> all = new ArrayList<>();
        for (Loop loop : LOOPS) {
            all.add(loop.out.info);
            all.add(loop.in.info);
        }
        return all.toArray(MidiDevice.Info[]::new);
    }

    @Override
    public MidiDevice getDevice(MidiDevice.Info info) {
        for (Loop loop : LOOPS) {
            if (loop.out.info == info) {
                return loop.out;
            }
            if (loop.in.info == info) {
                return loop.in;
            }
        }
        throw new IllegalArgumentException("no loop: " + info);
    }

    /** One loop with its two ends. */
    private static final class Loop {
        private final String name;
        private final End out;
        private final End in;
        private final List<Into> listeners = new CopyOnWriteArrayList<>();

        Loop(String name) {
            this.name = name;
            this.out = new End(this, "what goes in here comes out of the other end", true);
            this.in = new End(this, "what went into the other end", false);
        }
    }

    private static final class LoopInfo extends MidiDevice.Info {
        LoopInfo(String name, String description) {
            super(name, "Under Baton", description, "1");
        }
    }

    /** The out or the in of a loop. */
    private static final class End implements MidiDevice {
        private final Loop loop;
        private final boolean isOut;
        private final LoopInfo info;
        private volatile boolean open;

        End(Loop loop, String description, boolean isOut) {
            this.loop = loop;
            this.isOut = isOut;
            this.info = new LoopInfo(loop.name, description);
        }

        @Override
        public MidiDevice.Info getDeviceInfo() {
            return info;
        }

        @Override
        public void open() throws MidiUnavailableException {
            if (!LOOPS.contains(loop)) {
                throw new MidiUnavailableException("the loop “" + loop.name + "” was pulled out");
            }
            open = true;
        }

        @Override
        public void close() {
            open = false;
            if (!isOut) {
                loop.listeners.clear();
            }
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
            return isOut ? -1 : 0;
        }

        @Override
        public int getMaxTransmitters() {
            return isOut ? 0 : -1;
        }

        @Override
        public Receiver getReceiver() throws MidiUnavailableException {
            if (!isOut) {
                throw new MidiUnavailableException("nothing can be sent to the in of a loop");
            }
            return new Through(this);
        }

        @Override
        public List<Receiver> getReceivers() {
            return List.of();
        }

        @Override
        public Transmitter getTransmitter() throws MidiUnavailableException {
            if (isOut) {
                throw new MidiUnavailableException("nothing comes from the out of a loop");
            }
            Into into = new Into(loop);
            loop.listeners.add(into);
            return into;
        }

        @Override
        public List<Transmitter> getTransmitters() {
            return List.copyOf(loop.listeners);
        }
    }

    private record Through(End end) implements Receiver {
        @Override
        public void send(MidiMessage message, long timeStamp) {
            if (!end.open) {
                throw new IllegalStateException("the loop is closed");
            }
            for (Into listener : end.loop.listeners) {
                Receiver receiver = listener.receiver;
                if (receiver != null) {
                    receiver.send((MidiMessage) message.clone(), -1);
                }
            }
        }

        @Override
        public void close() {
            // The end stays open for others.
        }
    }

    private static final class Into implements Transmitter {
        private final Loop loop;
        private volatile Receiver receiver;

        Into(Loop loop) {
            this.loop = loop;
        }

        @Override
        public void setReceiver(Receiver receiver) {
            this.receiver = receiver;
        }

        @Override
        public Receiver getReceiver() {
            return receiver;
        }

        @Override
        public void close() {
            loop.listeners.remove(this);
        }
    }
}
