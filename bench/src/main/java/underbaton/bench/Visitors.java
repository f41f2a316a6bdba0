package underbaton.bench;

import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.WebSocket;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.security.cert.X509Certificate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509ExtendedTrustManager;

/** Devices of the venue: each asks at the door over TLS, is let in, and opens lines on which it takes every drawing. */
final class Visitors implements AutoCloseable {

    static final String PASSWORD = "lantern ferry ninth bell";
    private static final int LINES_OF_A_DEVICE = 6;
    private static final Pattern WAITS = Pattern.compile(
            "name=\"number\" value=\"(\\d+)\"[^>]*>\\s*" + "<input type=\"hidden\" name=\"code\" value=\"(\\d+)\"");
    private static final Pattern FORGERY = Pattern.compile("XSRF-TOKEN=([^;]+)");

    private final Application house;
    private final HttpClient client;
    private final String door;
    private final String forgery;
    private final List<WebSocket> lines = new ArrayList<>();
    private final AtomicLong letters = new AtomicLong();
    /** When the light of a key was told to the newest tablet, ns. */
    private final LinkedBlockingQueue<Long> lights = new LinkedBlockingQueue<>();

    private volatile String lastAnswer = "none";

    /** Opens the door at this computer's own address. */
    Visitors(Application house, int port) throws IOException, InterruptedException {
        this.house = house;
        client = HttpClient.newBuilder()
                .sslContext(trusting())
                .version(HttpClient.Version.HTTP_1_1)
                .executor(Executors.newFixedThreadPool(2, Visitors::daemon))
                .build();
        house.post("/venue/open", Map.of("address", "127.0.0.1", "port", "" + port, "newPassword", PASSWORD));
        Matcher at = Pattern.compile("https://127\\.0\\.0\\.1:\\d+").matcher(house.get("/venue"));
        if (!at.find()) {
            throw new IOException("the door did not open");
        }
        door = at.group();
        forgery = cookie(send("GET", "/come-in", "", ""), FORGERY);
    }

    private static Thread daemon(Runnable runnable) {
        Thread thread = new Thread(runnable, "visitors");
        thread.setDaemon(true);
        return thread;
    }

    private HttpResponse<String> send(String method, String path, String form, String cookies)
            throws IOException, InterruptedException {
        return client.send(
                HttpRequest.newBuilder(URI.create(door + path))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .header("Origin", door)
                        .header("Cookie", cookies)
                        .method(method, HttpRequest.BodyPublishers.ofString(form))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private static String cookie(HttpResponse<String> from, Pattern which) throws IOException {
        for (String set : from.headers().allValues("Set-Cookie")) {
            Matcher m = which.matcher(set);
            if (m.find()) {
                return m.group(1);
            }
        }
        throw new IOException(from.uri() + " answered " + from.statusCode() + " without what was to be in it");
    }

    /** Somebody asks, and the operator lets him in. @return what he shows from then on */
    private String letIn(String role) throws IOException, InterruptedException {
        String xsrf = "XSRF-TOKEN=" + forgery;
        String asking = cookie(
                send("POST", "/come-in/ask", "name=" + role + "&_csrf=" + forgery, xsrf),
                Pattern.compile("__Host-asking=([^;]+)"));
        Matcher waits = WAITS.matcher(house.get("/venue"));
        if (!waits.find()) {
            throw new IOException("nobody stands at the door");
        }
        house.post(
                "/venue/let-in",
                Map.of("number", waits.group(1), "code", waits.group(2), "role", role, "howLong", "TONIGHT"));
        return cookie(
                send("GET", "/come-in/answer", "", "__Host-asking=" + asking), Pattern.compile("__Host-baton=([^;]+)"));
    }

    /** Somebody who says that he is the operator; the password is wrong. */
    void guess(String password) throws IOException, InterruptedException {
        HttpResponse<String> said = send(
                "POST",
                "/come-in/password",
                "name=guess&password=" + password.replace(' ', '+') + "&_csrf=" + forgery,
                "XSRF-TOKEN=" + forgery);
        if (said.statusCode() < 400) {
            throw new IllegalStateException("a guess was taken: " + password);
        }
    }

    /** So many lines, each of a page that shows these topics of a show. @return the last of them */
    WebSocket come(int count, String role, String showId, String topics) throws IOException, InterruptedException {
        String shows = "{\"page\":\"1\",\"show\":" + showId + ",\"topics\":[" + topics + "]}";
        String shown = "";
        WebSocket newest = null;
        for (int i = 0; i < count; i++) {
            shown = i % LINES_OF_A_DEVICE == 0 ? letIn(role) : shown;
            newest = client.newWebSocketBuilder()
                    .header("Cookie", "__Host-baton=" + shown)
                    .header("Origin", door)
                    .buildAsync(URI.create(door.replaceFirst("^https", "wss") + "/live"), new Reader(i == count - 1))
                    .join();
            newest.sendText(shows, true).join();
            lines.add(newest);
        }
        return newest;
    }

    /** As browsers do from time to time; who says nothing for a minute is taken for gone. */
    void stillHere() {
        lines.forEach(
                l -> l.sendText("{\"page\":\"still here\",\"show\":0}", true).join());
    }

    /** What all of them were sent so far. */
    long letters() {
        return letters.get();
    }

    void forgetLights() {
        lights.clear();
    }

    /** When the newest tablet was told of lights next, ns. */
    long light() throws InterruptedException, IOException {
        Long at = lights.poll(20, TimeUnit.SECONDS);
        if (at == null) {
            throw new IOException("no light was told; the last answer to an order: " + lastAnswer);
        }
        return at;
    }

    @Override
    public void close() {
        lines.forEach(WebSocket::abort);
    }

    private final class Reader implements WebSocket.Listener {

        private final boolean looksAtLights;
        private final StringBuilder read = new StringBuilder();

        Reader(boolean looksAtLights) {
            this.looksAtLights = looksAtLights;
        }

        @Override
        public CompletionStage<?> onText(WebSocket socket, CharSequence data, boolean last) {
            letters.addAndGet(data.length());
            if (looksAtLights) {
                read.append(data);
                if (last && read.indexOf("\"topic\":\"hands\"") >= 0) {
                    lights.add(System.nanoTime());
                }
                lastAnswer = last && read.indexOf("\"order\"") >= 0 ? read.toString() : lastAnswer;
                read.setLength(last ? 0 : read.length());
            }
            socket.request(1);
            return CompletableFuture.completedStage(null);
        }
    }

    // ---- TLS

    /** The certificate is the application's own; who it is, is not what is measured. */
    private static SSLContext trusting() {
        try {
            SSLContext tls = SSLContext.getInstance("TLS");
            tls.init(null, new TrustManager[] {new Anybody()}, new SecureRandom());
            return tls;
        } catch (GeneralSecurityException missing) {
            throw new IllegalStateException(missing);
        }
    }

    private static final class Anybody extends X509ExtendedTrustManager {
        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket) {
            // Nobody is asked for one.
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket) {
            // It is ours.
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine) {
            // Nobody is asked for one.
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine) {
            // It is ours.
        }

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type) {
            // Nobody is asked for one.
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type) {
            // It is ours.
        }

        @Override
        public X509Certificate[] getAcceptedIssuers() {
            return new X509Certificate[0];
        }
    }
}
