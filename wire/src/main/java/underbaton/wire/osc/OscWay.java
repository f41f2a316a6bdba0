package underbaton.wire.osc;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.StandardSocketOptions;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.util.Arrays;
import java.util.List;
import underbaton.core.rig.Connection.Carrier;

/** Carries whole packets to one machine and back, whatever lies between. */
interface OscWay extends AutoCloseable {

    void write(byte[] packet) throws IOException;

    /** Waits for what comes next: none, one or several packets. */
    List<byte[]> read() throws IOException;

    @Override
    void close() throws IOException;

    /** @throws ConnectException when nobody is there */
    static OscWay open(InetSocketAddress to, Carrier carrier) throws IOException {
        return carrier == Carrier.UDP ? new Datagrams(to) : new Stream(to, carrier);
    }

    /** A datagram a packet. */
    final class Datagrams implements OscWay {
        private final DatagramChannel channel;
        private final ByteBuffer room = ByteBuffer.allocate(OscFraming.LARGEST_PACKET + 28);

        Datagrams(InetSocketAddress to) throws IOException {
            channel = DatagramChannel.open().connect(to);
        }

        @Override
        public void write(byte[] packet) throws IOException {
            channel.write(ByteBuffer.wrap(packet));
        }

        @Override
        public List<byte[]> read() throws IOException {
            room.clear();
            channel.read(room);
            return List.of(Arrays.copyOf(room.array(), room.position()));
        }

        @Override
        public void close() throws IOException {
            channel.close();
        }
    }

    /** A stream with framed packets. */
    final class Stream implements OscWay {
        private static final int CONNECT_MILLIS = 2000;

        private final Socket socket = new Socket();
        private final boolean slip;
        private final OscFraming framing = new OscFraming();
        private final byte[] room = new byte[8192];

        Stream(InetSocketAddress to, Carrier carrier) throws IOException {
            slip = carrier == Carrier.TCP_SLIP;
            socket.setOption(StandardSocketOptions.TCP_NODELAY, true);
            socket.connect(to, CONNECT_MILLIS);
        }

        @Override
        public void write(byte[] packet) throws IOException {
            socket.getOutputStream().write(slip ? OscFraming.inSlip(packet) : OscFraming.withSize(packet));
        }

        @Override
        public List<byte[]> read() throws IOException {
            int got = socket.getInputStream().read(room);
            if (got < 0) {
                throw new IOException("it hung up");
            }
            try {
                return framing.take(room, got);
            } catch (OscFraming.Broken broken) {
                throw new IOException(broken.getMessage(), broken);
            }
        }

        @Override
        public void close() throws IOException {
            socket.close();
        }
    }
}
