package underbaton.wire.osc;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.StandardSocketOptions;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.channels.SelectionKey;
import java.nio.channels.Selector;
import java.nio.channels.SocketChannel;
import java.util.Arrays;
import java.util.List;
import underbaton.core.rig.Connection.Carrier;

/** Carries whole packets to one machine and back, whatever lies between. */
interface OscWay extends AutoCloseable {

    /**
     * Never waits.
     *
     * @return whether the packet was taken; if not, nothing of it was
     */
    boolean write(byte[] packet) throws IOException;

    /** Whether the machine takes what is sent, as far as this side can see. Never waits. */
    boolean flows() throws IOException;

    /** Waits for what comes next, half a second at most: none, one or several packets. */
    List<byte[]> read() throws IOException;

    /** Whether it listens to all ports of a machine, which answers from the one that it is spoken to at. */
    default boolean hearsMoreThanItNeeds() {
        return false;
    }

    @Override
    void close() throws IOException;

    /** @throws ConnectException when nobody is there */
    static OscWay open(InetSocketAddress to, Carrier carrier) throws IOException {
        return carrier == Carrier.UDP ? new Datagrams(to, false) : new Stream(to, carrier);
    }

    /** By datagrams, with answers from whatever port of that address; whether somebody listens there is not told then. */
    static OscWay toAnyPortOf(InetSocketAddress to) throws IOException {
        return new Datagrams(to, true);
    }

    /** A datagram a packet. */
    final class Datagrams implements OscWay {
        private final DatagramChannel channel;
        private final InetSocketAddress to;
        private final boolean anyPort;
        private final ByteBuffer room = ByteBuffer.allocate(OscFraming.LARGEST_PACKET + 28);

        private volatile boolean answersFromThere;

        /** @param anyPort whether whatever comes from that address is read */
        Datagrams(InetSocketAddress to, boolean anyPort) throws IOException {
            this.to = to;
            this.anyPort = anyPort;
            DatagramChannel open = DatagramChannel.open();
            channel = anyPort ? open.bind(null) : open.connect(to);
        }

        @Override
        public boolean hearsMoreThanItNeeds() {
            return anyPort && answersFromThere;
        }

        @Override
        public boolean write(byte[] packet) throws IOException {
            return channel.send(ByteBuffer.wrap(packet), to) > 0;
        }

        @Override
        public boolean flows() {
            return true;
        }

        @Override
        public List<byte[]> read() throws IOException {
            room.clear();
            InetSocketAddress from = (InetSocketAddress) channel.receive(room);
            answersFromThere |= from.equals(to);
            return from.getAddress().equals(to.getAddress())
                    ? List.of(Arrays.copyOf(room.array(), room.position()))
                    : List.of();
        }

        @Override
        public void close() throws IOException {
            channel.close();
        }
    }

    /**
     * A stream with framed packets. It is written without waiting: while the machine takes nothing, at most one packet is
     * under way on this side of the cable, and those after it are refused instead of kept for later.
     */
    final class Stream implements OscWay {
        private static final int CONNECT_MILLIS = 2000;
        private static final int READ_MILLIS = 500;
        /** Little, so that not many packets can grow old in it. */
        private static final int ROOM_BYTES = 4096;

        private final SocketChannel channel;
        private final Selector selector;
        private final boolean slip;
        private final OscFraming framing = new OscFraming();
        private final ByteBuffer room = ByteBuffer.allocate(8192);
        /** What is left of a packet whose beginning has gone: it has to go too, or the stream has lost its frames. */
        private ByteBuffer rest = ByteBuffer.allocate(0);

        Stream(InetSocketAddress to, Carrier carrier) throws IOException {
            slip = carrier == Carrier.TCP_SLIP;
            channel = SocketChannel.open();
            try {
                channel.setOption(StandardSocketOptions.TCP_NODELAY, true);
                channel.setOption(StandardSocketOptions.SO_SNDBUF, ROOM_BYTES);
                channel.socket().connect(to, CONNECT_MILLIS);
                channel.configureBlocking(false);
                selector = Selector.open();
                channel.register(selector, SelectionKey.OP_READ);
            } catch (IOException | RuntimeException failed) {
                channel.close();
                throw failed;
            }
        }

        @Override
        public synchronized boolean write(byte[] packet) throws IOException {
            if (!flows()) {
                return false;
            }
            ByteBuffer framed = ByteBuffer.wrap(slip ? OscFraming.inSlip(packet) : OscFraming.withSize(packet));
            if (channel.write(framed) == 0) {
                return false;
            }
            rest = framed;
            return true;
        }

        @Override
        public synchronized boolean flows() throws IOException {
            if (rest.hasRemaining()) {
                channel.write(rest);
            }
            return !rest.hasRemaining();
        }

        @Override
        public List<byte[]> read() throws IOException {
            selector.select(READ_MILLIS);
            selector.selectedKeys().clear();
            room.clear();
            int got = channel.read(room);
            if (got < 0) {
                throw new IOException("it hung up");
            }
            try {
                return framing.take(room.array(), got);
            } catch (OscFraming.Broken broken) {
                throw new IOException(broken.getMessage(), broken);
            }
        }

        @Override
        public void close() throws IOException {
            selector.close();
            channel.close();
        }
    }
}
