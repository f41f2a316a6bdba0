package underbaton.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * Opens Standard MIDI Files of program changes in a show without end, faster than any person: by turns one as large as the application reads, and
 * one that it refuses for its number of events, of almost its largest size.
 */
final class Importer {

    private static final int READ = 59_000;
    private static final int REFUSED = 1_300_000;
    private static final long PAUSE_MILLIS = 500;
    private static final String BOUNDARY = "-bench-";

    private final HttpClient client = HttpClient.newHttpClient();
    private final URI address;

    private Importer(URI address) {
        this.address = address;
    }

    /** A process of its own, so that its memory is not that of the bench; {@link #end} ends it. */
    static Process start(String base, String showPath) throws IOException {
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        String classes = System.getProperty("java.class.path");
        return new ProcessBuilder(
                        java, "-cp", classes, Bench.class.getName(), "import", base + showPath + "/score/files")
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
    }

    /** @return what it did, in words */
    static String end(Process process) throws IOException {
        process.getOutputStream().close();
        return new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
    }

    /** Goes on until its input ends, and says then what it did. */
    static void run(String address) throws IOException {
        AtomicInteger read = new AtomicInteger();
        AtomicInteger refused = new AtomicInteger();
        Thread thread = new Thread(() -> new Importer(URI.create(address)).send(read, refused), "import");
        thread.setDaemon(true);
        thread.start();
        while (System.in.read() >= 0) {
            // Nothing is said to it but that it is over.
        }
        System.out.println(read + " files read, " + refused + " refused");
    }

    private void send(AtomicInteger read, AtomicInteger refused) {
        byte[] most = form(READ);
        byte[] tooMany = form(REFUSED);
        try {
            while (true) {
                (send(most) < 400 ? read : refused).incrementAndGet();
                (send(tooMany) < 400 ? read : refused).incrementAndGet();
                Thread.sleep(PAUSE_MILLIS);
            }
        } catch (IOException | InterruptedException over) {
            System.err.println("no more imports: " + over);
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
}
