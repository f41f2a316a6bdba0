package underbaton.web.live;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/** Stands between a browser and the application, as a network does: it can fall silent, and it can be cut. */
final class Relay implements AutoCloseable {

    private final ServerSocket door = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
    private final int behind;
    private final List<Socket> sockets = new CopyOnWriteArrayList<>();
    private volatile boolean silent;
    private volatile boolean cut;

    /** @param behind the port of the application */
    Relay(int behind) throws IOException {
        this.behind = behind;
        start(this::admit);
    }

    int port() {
        return door.getLocalPort();
    }

    /** Nothing goes through, and nobody is told. */
    void silence(boolean now) {
        silent = now;
    }

    /** Every connection ends, and no new one lasts. */
    void cut(boolean now) {
        cut = now;
        if (now) {
            sockets.forEach(Relay::end);
        }
    }

    private static void start(Runnable work) {
        Thread thread = new Thread(work, "relay");
        thread.setDaemon(true);
        thread.start();
    }

    private void admit() {
        try {
            while (true) {
                Socket browser = door.accept();
                sockets.add(browser);
                if (cut) {
                    end(browser);
                    continue;
                }
                Socket application = new Socket(InetAddress.getLoopbackAddress(), behind);
                sockets.add(application);
                start(() -> pass(browser, application));
                start(() -> pass(application, browser));
            }
        } catch (IOException closed) {
            sockets.forEach(Relay::end);
        }
    }

    private void pass(Socket from, Socket to) {
        byte[] some = new byte[8192];
        try {
            InputStream in = from.getInputStream();
            OutputStream out = to.getOutputStream();
            for (int count = in.read(some); count >= 0; count = in.read(some)) {
                while (silent) {
                    Thread.sleep(5);
                }
                out.write(some, 0, count);
            }
        } catch (IOException | InterruptedException over) {
            // The other end is closed below, as it is when all was passed on.
        }
        end(from);
        end(to);
    }

    private static void end(Socket socket) {
        try {
            socket.close();
        } catch (IOException closed) {
            // It is as closed as it will be.
        }
    }

    @Override
    public void close() throws IOException {
        door.close();
    }
}
