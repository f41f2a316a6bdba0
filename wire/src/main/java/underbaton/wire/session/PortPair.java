package underbaton.wire.session;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.PortUnreachableException;
import java.net.StandardSocketOptions;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.channels.SelectionKey;
import java.nio.channels.Selector;

/** The two neighbouring UDP ports of a session endpoint, control N and data N+1, read by one thread and written by any. */
final class PortPair implements AutoCloseable {

    /** Gets a datagram, on the reading thread. */
    interface Receiver {
        /** @param control whether it came to the control port */
        void take(ByteBuffer datagram, boolean control, InetSocketAddress from);
    }

    private static final int LARGEST_DATAGRAM = 65_535;
    private static final int PORT_TRIES = 50;
    /** Read in one go of each port; then others get their turn, however much is still waiting. */
    private static final int MOST_AT_ONCE = 256;

    private static final int ROOM_BYTES = 1 << 20;

    private final DatagramChannel control;
    private final DatagramChannel data;
    private final Selector selector;
    private final ByteBuffer incoming = ByteBuffer.allocate(LARGEST_DATAGRAM);

    /**
     * @param port the control port, or 0 for any free pair
     * @throws IOException when they cannot be had
     */
    PortPair(InetAddress bind, int port) throws IOException {
        DatagramChannel[] pair = open(bind, port);
        control = pair[0];
        data = pair[1];
        selector = Selector.open();
        for (DatagramChannel one : pair) {
            one.setOption(StandardSocketOptions.SO_RCVBUF, ROOM_BYTES);
            one.configureBlocking(false).register(selector, SelectionKey.OP_READ);
        }
    }

    private static DatagramChannel[] open(InetAddress bind, int port) throws IOException {
        IOException last = null;
        for (int i = 0; i < (port == 0 ? PORT_TRIES : 1); i++) {
            DatagramChannel first = DatagramChannel.open();
            DatagramChannel second = DatagramChannel.open();
            try {
                first.bind(new InetSocketAddress(bind, port));
                int got = ((InetSocketAddress) first.getLocalAddress()).getPort();
                second.bind(new InetSocketAddress(bind, got + 1));
                return new DatagramChannel[] {first, second};
            } catch (IOException | IllegalArgumentException taken) {
                last = new IOException(
                        "UDP ports " + port + " and " + (port + 1) + " cannot be had: " + taken.getMessage(), taken);
                first.close();
                second.close();
            }
        }
        throw last;
    }

    /** The control port. */
    int number() {
        return control.socket().getLocalPort();
    }

    /** Waits for something to come, {@code millis} at most, and hands it on. */
    void read(long millis, Receiver receiver) throws IOException {
        selector.select(millis);
        selector.selectedKeys().clear();
        drain(control, receiver);
        drain(data, receiver);
    }

    /** Hands on what waits in the data port; also from within {@link #read}, when its receiver has done with its datagram. */
    void readData(Receiver receiver) throws IOException {
        drain(data, receiver);
    }

    private void drain(DatagramChannel channel, Receiver receiver) throws IOException {
        for (int i = 0; i < MOST_AT_ONCE; i++) {
            incoming.clear();
            InetSocketAddress from = receive(channel);
            if (from == null) {
                return;
            }
            incoming.flip();
            receiver.take(incoming, channel == control, from);
        }
    }

    /** A refused port of one peer must not stop us from reading the others. */
    private InetSocketAddress receive(DatagramChannel channel) throws IOException {
        try {
            return (InetSocketAddress) channel.receive(incoming);
        } catch (PortUnreachableException nobodyThere) {
            return null;
        }
    }

    /** Ends the wait of {@link #read}. */
    void wake() {
        selector.wakeup();
    }

    /** @return whether the network took it; never waits */
    boolean sendControl(ByteBuffer packet, InetSocketAddress to) {
        return send(control, packet, to);
    }

    /** @return whether the network took it; never waits */
    boolean sendData(ByteBuffer packet, InetSocketAddress to) {
        return send(data, packet, to);
    }

    private static boolean send(DatagramChannel channel, ByteBuffer packet, InetSocketAddress to) {
        try {
            return channel.send(packet, to) > 0;
        } catch (IOException | RuntimeException unreachable) {
            return false;
        }
    }

    @Override
    public void close() throws IOException {
        selector.close();
        control.close();
        data.close();
    }
}
