package underbaton.wire.osc;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.ClosedChannelException;
import java.nio.channels.DatagramChannel;
import java.util.Arrays;
import java.util.List;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.OscMessage;
import underbaton.core.signal.Signal;

/** Listens for Open Sound Control on a UDP port, and can answer whoever spoke. */
public final class OscInlet implements AutoCloseable {

    /** Gets each message on one of the inlet's threads; what it gives back is sent to whoever spoke. */
    public interface Ear {
        /** @return what is sent to whoever spoke, in this order; empty for nothing */
        List<OscMessage> heard(Signal signal, Caller from);

        /** Something came that is no OSC, or of a type that nobody knows. @param bytes of the part that could not be read */
        default void unread(Bytes bytes, InetSocketAddress from) {}
    }

    private static final int LARGEST_DATAGRAM = 65_535;

    private final DatagramChannel channel;
    private final OscCodec reading = new OscCodec();
    private final Clock clock;
    private final OscDoor door;
    private final Ear ear;
    private final OscDelay delay;
    private final ByteBuffer room = ByteBuffer.allocate(LARGEST_DATAGRAM);
    private final Loop loop;

    /**
     * @param port 0 for any free one
     * @param door asked before a packet is read
     * @throws IOException when the port cannot be had
     */
    public OscInlet(InetAddress bind, int port, Clock clock, Loops loops, OscDoor door, Ear ear) throws IOException {
        this.clock = clock;
        this.door = door;
        this.ear = ear;
        channel = DatagramChannel.open().bind(new InetSocketAddress(bind, port));
        delay = new OscDelay(clock, loops);
        loop = loops.start("OSC at port " + port(), this::turn);
    }

    /** Open for anyone. */
    public OscInlet(InetAddress bind, int port, Clock clock, Loops loops, Ear ear) throws IOException {
        this(bind, port, clock, loops, new OscDoor(clock), ear);
    }

    /** At which it hears, of this computer. */
    public int port() {
        return channel.socket().getLocalPort();
    }

    @Override
    public void close() throws IOException {
        loop.end();
        channel.close();
        loop.close();
        delay.close();
    }

    private void turn() throws IOException {
        room.clear();
        SocketAddress sender;
        try {
            sender = channel.receive(room);
        } catch (ClosedChannelException closed) {
            loop.end();
            return;
        }
        InetSocketAddress from = (InetSocketAddress) sender;
        long now = clock.nanos();
        if (door.takes(from.getAddress())) {
            byte[] packet = Arrays.copyOf(room.array(), room.position());
            for (OscCodec.Read read : reading.decode(packet, bytes -> ear.unread(bytes, from))) {
                delay.at(read.timeTag(), () -> tell(read, now, from));
            }
        }
    }

    private void tell(OscCodec.Read read, long now, InetSocketAddress from) {
        Caller caller = new ByDatagram(channel, from);
        List<OscMessage> answers = ear.heard(new Signal(read.message(), read.bytes(), now), caller);
        for (OscMessage answer : answers) {
            try {
                caller.say(answer);
            } catch (IOException unreachable) {
                // Whoever asked has gone; there is nobody to be told.
                return;
            }
        }
    }

    private record ByDatagram(DatagramChannel channel, InetSocketAddress address) implements Caller {
        @Override
        public void say(OscMessage message) throws IOException {
            channel.send(ByteBuffer.wrap(new OscCodec().encode(message).toArray()), address);
        }

        @Override
        public void hangUp() {
            // It holds no line.
        }
    }
}
