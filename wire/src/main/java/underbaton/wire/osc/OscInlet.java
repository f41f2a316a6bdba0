package underbaton.wire.osc;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.ThreadFactory;
import underbaton.core.midi.OscMessage;

/** Listens for Open Sound Control 1.0 on a UDP port, and can answer whoever spoke. */
public final class OscInlet implements AutoCloseable {

    /** Gets each message on the inlet's thread; what it gives back is sent to whoever spoke. */
    public interface Ear {
        List<OscMessage> heard(OscMessage message, InetAddress from);
    }

    private static final int LARGEST_DATAGRAM = 65_535;

    private final DatagramChannel channel;
    private final OscCodec codec = new OscCodec();
    private final Ear ear;

    /**
     * @param port 0 for any free one
     * @throws IOException when the port cannot be had
     */
    public OscInlet(InetAddress bind, int port, ThreadFactory threads, Ear ear) throws IOException {
        this.ear = ear;
        channel = DatagramChannel.open().bind(new InetSocketAddress(bind, port));
        threads.newThread(this::listen).start();
    }

    public int port() {
        return channel.socket().getLocalPort();
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }

    private void listen() {
        ByteBuffer room = ByteBuffer.allocate(LARGEST_DATAGRAM);
        while (channel.isOpen()) {
            try {
                room.clear();
                InetSocketAddress from = (InetSocketAddress) channel.receive(room);
                for (OscMessage message : codec.decode(Arrays.copyOf(room.array(), room.position()))) {
                    for (OscMessage answer : ear.heard(message, from.getAddress())) {
                        channel.send(ByteBuffer.wrap(codec.encode(answer).toArray()), from);
                    }
                }
            } catch (IOException | RuntimeException closedOrFault) {
                // One bad packet, or one caller that is gone already, must not end the listening.
                if (!channel.isOpen()) {
                    return;
                }
            }
        }
    }
}
