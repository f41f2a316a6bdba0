package underbaton.wire.osc;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ThreadFactory;
import underbaton.core.midi.OscMessage;

/** Listens for Open Sound Control on a TCP port, in both framings, and can answer whoever spoke. */
public final class OscTcpInlet implements AutoCloseable {

    private static final int MOST_CALLERS = 32;

    private final ServerSocket server;
    private final ThreadFactory threads;
    private final OscInlet.Ear ear;
    private final Set<Socket> callers = ConcurrentHashMap.newKeySet();

    /**
     * @param port 0 for any free one
     * @throws IOException when the port cannot be had
     */
    public OscTcpInlet(InetAddress bind, int port, ThreadFactory threads, OscInlet.Ear ear) throws IOException {
        this.threads = threads;
        this.ear = ear;
        server = new ServerSocket(port, MOST_CALLERS, bind);
        threads.newThread(this::welcome).start();
    }

    public int port() {
        return server.getLocalPort();
    }

    @Override
    public void close() throws IOException {
        server.close();
        for (Socket caller : callers) {
            caller.close();
        }
    }

    private void welcome() {
        while (!server.isClosed()) {
            try {
                Socket caller = server.accept();
                if (callers.size() >= MOST_CALLERS) {
                    caller.close();
                } else {
                    callers.add(caller);
                    threads.newThread(() -> listen(caller)).start();
                }
            } catch (IOException closedOrOutOfBreath) {
                if (server.isClosed()) {
                    return;
                }
            }
        }
    }

    private void listen(Socket caller) {
        OscFraming framing = new OscFraming();
        OscCodec codec = new OscCodec();
        byte[] room = new byte[8192];
        try (caller) {
            for (int got = caller.getInputStream().read(room);
                    got >= 0;
                    got = caller.getInputStream().read(room)) {
                for (byte[] packet : framing.take(room, got)) {
                    for (OscMessage message : codec.decode(packet)) {
                        for (OscMessage answer : ear.heard(message, caller.getInetAddress())) {
                            caller.getOutputStream()
                                    .write(framing.answer(codec.encode(answer).toArray()));
                        }
                    }
                }
            }
        } catch (IOException | OscFraming.Broken | RuntimeException gone) {
            // A caller that hangs up, or talks nonsense, is let go; it may call again.
        } finally {
            callers.remove(caller);
        }
    }
}
