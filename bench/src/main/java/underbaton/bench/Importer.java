package underbaton.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * Opens Standard MIDI Files of program changes in a show without end: by turns one as large as the application reads, and
 * one that it refuses for its number of events.
 */
final class Importer implements AutoCloseable {

    private static final int READ = 290_000;
    private static final int REFUSED = 5_200_000;
    private static final String BOUNDARY = "-bench-";

    private final HttpClient client = HttpClient.newHttpClient();
    private final URI address;
    private final AtomicInteger read = new AtomicInteger();
    private final AtomicInteger refused = new AtomicInteger();
    private final Thread thread = new Thread(this::open, "import");
    private volatile boolean closed;

    Importer(String base, String showPath) {
        address = URI.create(base + showPath + "/score/files");
        thread.setDaemon(true);
        thread.start();
    }

    private void open() {
        byte[] most = form(READ);
        byte[] tooMany = form(REFUSED);
        try {
            while (!closed) {
                (send(most) < 400 ? read : refused).incrementAndGet();
                (send(tooMany) < 400 ? read : refused).incrementAndGet();
            }
        } catch (IOException | InterruptedException over) {
            closed = true;
        }
    }

    private int send(byte[] form) throws IOException, InterruptedException {
        return client.send(
                        HttpRequest.newBuilder(address)
                                .header("Content-Type", "multipart/form-data; boundary=" + BOUNDARY)
                                .POST(HttpRequest.BodyPublishers.ofByteArray(form))
                                .build(),
                        HttpResponse.BodyHandlers.discarding())
                .statusCode();
    }

    /** Type 0 of the Standard MIDI File: a header, and one track of program changes, a tick apart. */
    private static byte[] form(int events) {
        ByteArrayOutputStream form = new ByteArrayOutputStream();
        String head = "--" + BOUNDARY + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"large.mid\"\r\n"
                + "Content-Type: audio/midi\r\n\r\n";
        form.writeBytes(head.getBytes(StandardCharsets.US_ASCII));
        form.writeBytes(ByteBuffer.allocate(22)
                .put("MThd".getBytes(StandardCharsets.US_ASCII))
                .putInt(6)
                .putShort((short) 0)
                .putShort((short) 1)
                .putShort((short) 480)
                .put("MTrk".getBytes(StandardCharsets.US_ASCII))
                .putInt(3 * events + 4)
                .array());
        for (int i = 0; i < events; i++) {
            form.write(1);
            form.write(0xC0);
            form.write(i % 128);
        }
        form.writeBytes(new byte[] {0, (byte) 0xFF, 0x2F, 0});
        form.writeBytes(("\r\n--" + BOUNDARY + "--\r\n").getBytes(StandardCharsets.US_ASCII));
        return form.toByteArray();
    }

    /** How many were read, and how many refused. */
    @Override
    public String toString() {
        return read + " files read, " + refused + " refused";
    }

    @Override
    public void close() {
        closed = true;
        thread.interrupt();
    }
}
