package underbaton.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import underbaton.core.loop.Clock;
import underbaton.wire.session.SessionEndpoint;

/** The running application, as a browser speaks to it. */
final class Application {

    static final int WARM_UPS = 500;

    private static final Pattern VERSION = Pattern.compile("data-cues=\"\\d+:(\\d+):");

    private final HttpClient http = HttpClient.newBuilder()
            .version(HttpClient.Version.HTTP_1_1)
            .followRedirects(HttpClient.Redirect.NEVER)
            .build();
    private final String base;
    private final Clock clock;

    Application(String base, Clock clock) {
        this.base = base;
        this.clock = clock;
    }

    /** A show of one cue on the desk, with the machine. @return its path */
    String show(SessionEndpoint machine) throws IOException, InterruptedException {
        String show = location(post("/shows", Map.of("name", "Bench " + clock.epochMicros())));
        String path = show.replaceAll("/rig.*", "");
        post(path + "/rig/devices", deviceForm(machine.port()));
        post(path + "/rig/devices/1/phrases", Map.of("name", "Look", "says", "note 1", "effect", "HOLDS"));
        post(path + "/book/items", Map.of("kind", "SONG", "name", "Song"));
        String table = post(path + "/book/cues", Map.of("item", "3")).body();
        Matcher version = VERSION.matcher(table);
        if (!version.find()) {
            throw new IOException("no cue was added: " + table);
        }
        post(path + "/book/cues/4/cell", Map.of("column", "1", "text", "Look", "version", version.group(1)));
        waitUntilOpen(machine);
        // The same key ten times a second is what is measured here.
        post(
                path + "/desk/manner",
                Map.of("asks", "false", "skipped", "all", "again", "0", "edits", "AT_ONCE", "lead", "5"));
        for (int i = 0; i < WARM_UPS; i++) {
            // Our own client must be warm; the application's way from GO to the wire is not touched by this.
            post(path + "/desk/jump", Map.of("number", "1"));
        }
        return path;
    }

    private static void waitUntilOpen(SessionEndpoint machine) throws InterruptedException, IOException {
        for (int i = 0; i < 200; i++) {
            if (machine.peers().stream().anyMatch(p -> p.isOpen())) {
                Thread.sleep(200);
                return;
            }
            Thread.sleep(50);
        }
        throw new IOException("the application never opened a session with us");
    }

    private static Map<String, String> deviceForm(int port) {
        return Map.of(
                "name", "Lights",
                "department", "LIGHTS",
                "wire", "midi",
                "host", "127.0.0.1",
                "port", Integer.toString(port),
                "channel", "1",
                "lead", "0");
    }

    HttpResponse<String> post(String path, Map<String, String> fields) throws IOException, InterruptedException {
        String form = fields.entrySet().stream()
                .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
                .collect(Collectors.joining("&"));
        return answer(
                HttpRequest.newBuilder(URI.create(base + path))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString(form)),
                path);
    }

    /** Adds a listener. @param does its blanks, where they are others than those for control 67 of the first machine */
    void listen(String path, Map<String, String> does) throws IOException, InterruptedException {
        Map<String, String> form = new HashMap<>();
        for (String blank : List.of(
                "channel",
                "high",
                "hard",
                "bank",
                "word",
                "text",
                "value",
                "offset",
                "target",
                "cue",
                "how",
                "says",
                "tells",
                "words",
                "toChannel",
                "shift",
                "fills",
                "place",
                "comesFrom",
                "comesTo",
                "goesFrom",
                "goesTo",
                "bent",
                "grid",
                "smooth",
                "secondChannel",
                "secondNumber",
                "gates",
                "names",
                "first")) {
            form.put(blank, "");
        }
        form.putAll(
                Map.of("id", "0", "name", "Pedal", "from", "1", "kind", "controller", "low", "67", "way", "within"));
        form.putAll(Map.of("soft", "0", "pause", "0", "item", "0", "listens", "on", "second", "0", "listOf", "0"));
        form.put("meeting", "LATEST");
        form.put("channel", "1");
        form.putAll(does);
        post(path + "/signals", form);
    }

    String get(String path) throws IOException, InterruptedException {
        return answer(HttpRequest.newBuilder(URI.create(base + path)), path).body();
    }

    /** A file, as a form sends it. */
    String upload(String path, String name, byte[] content) throws IOException, InterruptedException {
        String boundary = "-bench-";
        ByteArrayOutputStream form = new ByteArrayOutputStream();
        form.writeBytes(("--" + boundary + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + name
                        + "\"\r\n\r\n")
                .getBytes(StandardCharsets.US_ASCII));
        form.writeBytes(content);
        form.writeBytes(("\r\n--" + boundary + "--\r\n").getBytes(StandardCharsets.US_ASCII));
        return answer(
                        HttpRequest.newBuilder(URI.create(base + path))
                                .header("Content-Type", "multipart/form-data; boundary=" + boundary)
                                .POST(HttpRequest.BodyPublishers.ofByteArray(form.toByteArray())),
                        path)
                .body();
    }

    private HttpResponse<String> answer(HttpRequest.Builder request, String path)
            throws IOException, InterruptedException {
        HttpResponse<String> response = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        if (response.statusCode() >= 400) {
            throw new IOException(path + " answered " + response.statusCode() + ": " + response.body());
        }
        return response;
    }

    private static String location(HttpResponse<String> response) {
        return URI.create(response.headers()
                        .firstValue("HX-Redirect")
                        .or(() -> response.headers().firstValue("Location"))
                        .orElseThrow())
                .getPath();
    }
}
