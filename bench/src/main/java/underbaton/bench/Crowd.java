package underbaton.bench;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicLong;

/** Browsers that look at the Desk of a show, each with a line of its own on which it takes every drawing. */
final class Crowd implements AutoCloseable {

    private final List<WebSocket> lines = new ArrayList<>();
    private final AtomicLong letters = new AtomicLong();

    Crowd(int count, String base, String showId) {
        HttpClient client = HttpClient.newBuilder()
                .executor(Executors.newFixedThreadPool(2, Crowd::daemon))
                .build();
        URI line = URI.create(base.replaceFirst("^http", "ws") + "/live");
        String shows =
                "{\"page\":\"1\",\"show\":" + showId + ",\"topics\":[\"alarms\",\"desk\",\"lamps\",\"playing\"]}";
        List<CompletableFuture<WebSocket>> opening = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            opening.add(client.newWebSocketBuilder().buildAsync(line, new Reader()));
        }
        for (CompletableFuture<WebSocket> one : opening) {
            WebSocket open = one.join();
            open.sendText(shows, true).join();
            lines.add(open);
        }
    }

    private static Thread daemon(Runnable runnable) {
        Thread thread = new Thread(runnable, "crowd");
        thread.setDaemon(true);
        return thread;
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

    @Override
    public void close() {
        lines.forEach(WebSocket::abort);
    }

    private final class Reader implements WebSocket.Listener {
        @Override
        public CompletionStage<?> onText(WebSocket socket, CharSequence data, boolean last) {
            letters.addAndGet(data.length());
            socket.request(1);
            return null;
        }
    }
}
