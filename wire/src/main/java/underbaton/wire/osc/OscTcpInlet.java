package underbaton.wire.osc;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketException;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.midi.OscMessage;
import underbaton.core.signal.Signal;

/**
 * Listens for Open Sound Control on a TCP port, in both framings, and can answer whoever spoke. A caller that says nothing
 * for a minute is let go, and each address has a share of the places.
 */
public final class OscTcpInlet implements AutoCloseable {

    private static final int MOST_CALLERS = 32;
    private static final int MOST_OF_ONE_ADDRESS = 8;
    private static final int LONGEST_SILENCE_MILLIS = 60_000;
    private static final int ROOM_BYTES = 8192;

    private final ServerSocket server;
    private final Clock clock;
    private final Loops loops;
    private final OscDoor door;
    private final OscInlet.Ear ear;
    private final OscDelay delay;
    private final Set<Socket> callers = ConcurrentHashMap.newKeySet();
    private final Loop loop;

    /**
     * @param port 0 for any free one
     * @param door asked before a caller is let in, and for each of its packets
     * @throws IOException when the port cannot be had
     */
    public OscTcpInlet(InetAddress bind, int port, Clock clock, Loops loops, OscDoor door, OscInlet.Ear ear)
            throws IOException {
        this.clock = clock;
        this.loops = loops;
        this.door = door;
        this.ear = ear;
        server = new ServerSocket(port, MOST_CALLERS, bind);
        delay = new OscDelay(clock, loops);
        loop = loops.start("OSC calls at port " + port(), this::welcome);
    }

    /** Open for anyone. */
    public OscTcpInlet(InetAddress bind, int port, Clock clock, Loops loops, OscInlet.Ear ear) throws IOException {
        this(bind, port, clock, loops, new OscDoor(clock), ear);
    }

    /** At which it hears, of this computer. */
    public int port() {
        return server.getLocalPort();
    }

    @Override
    public void close() throws IOException {
        loop.end();
        server.close();
        for (Socket caller : callers) {
            caller.close();
        }
        loop.close();
        delay.close();
    }

    private void welcome() throws IOException {
        Socket caller;
        try {
            caller = server.accept();
        } catch (SocketException closed) {
            if (server.isClosed()) {
                loop.end();
                return;
            }
            throw closed;
        }
        long ofTheSame = callers.stream()
                .filter(c -> caller.getInetAddress().equals(c.getInetAddress()))
                .count();
        boolean room = callers.size() < MOST_CALLERS && ofTheSame < MOST_OF_ONE_ADDRESS;
        if (!room || !door.takes(caller.getInetAddress())) {
            caller.close();
            return;
        }
        caller.setSoTimeout(LONGEST_SILENCE_MILLIS);
        callers.add(caller);
        loops.once("OSC call of " + caller.getInetAddress().getHostAddress(), () -> listen(caller));
    }

    private void listen(Socket caller) {
        OscFraming framing = new OscFraming();
        OscCodec codec = new OscCodec();
        byte[] room = new byte[ROOM_BYTES];
        try (caller) {
            for (int got = caller.getInputStream().read(room);
                    got >= 0;
                    got = caller.getInputStream().read(room)) {
                for (byte[] packet : framing.take(room, got)) {
                    take(packet, caller, framing, codec);
                }
            }
        } catch (IOException | OscFraming.Broken gone) {
            // A caller that hangs up, falls silent or talks nonsense is let go; it may call again.
        } finally {
            callers.remove(caller);
        }
    }

    private void take(byte[] packet, Socket caller, OscFraming framing, OscCodec codec) {
        long now = clock.nanos();
        if (!door.takes(caller.getInetAddress())) {
            return;
        }
        InetSocketAddress from = (InetSocketAddress) caller.getRemoteSocketAddress();
        for (OscCodec.Read read : codec.decode(packet, bytes -> ear.unread(bytes, from))) {
            delay.at(read.timeTag(), () -> tell(read, now, caller, framing));
        }
    }

    private void tell(OscCodec.Read read, long now, Socket caller, OscFraming framing) {
        Signal signal = new Signal(read.message(), read.bytes(), now);
        Caller who = new ByStream(caller, framing);
        for (OscMessage answer : ear.heard(signal, who)) {
            try {
                who.say(answer);
            } catch (IOException hungUp) {
                return;
            }
        }
    }

    private record ByStream(Socket socket, OscFraming framing) implements Caller {
        @Override
        public InetSocketAddress address() {
            return (InetSocketAddress) socket.getRemoteSocketAddress();
        }

        @Override
        public void say(OscMessage message) throws IOException {
            byte[] packet = new OscCodec().encode(message).toArray();
            // What is answered and what is told later come from different threads.
            synchronized (socket) {
                socket.getOutputStream().write(framing.answer(packet));
            }
        }

        @Override
        public void hangUp() {
            try {
                socket.close();
            } catch (IOException gone) {
                // Then there is no line any more.
                return;
            }
        }
    }
}
