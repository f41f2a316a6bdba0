package underbaton.web.live;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.locks.LockSupport;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Keeps open pages up to date by server-sent events. A topic is one part of a page; when it has changed, its painter
 * draws it once and every page that shows it gets the drawing. Those who report a change never wait: painting and
 * sending happen on threads of this class, one a page, and a page that reads slowly gets the newest drawing and misses
 * those between.
 */
@Component
public class Live {

    /** Draws a topic for a show; gives back what to send, or an empty text for nothing. */
    @FunctionalInterface
    public interface Painter {
        String paint(int showId);
    }

    private static final long SHORTEST_PAUSE_NANOS = 20_000_000L;
    private static final long HEARTBEAT_NANOS = 10_000_000_000L;

    private final ThreadFactory threads;
    private final Map<String, Painter> painters = new ConcurrentHashMap<>();
    private final List<Page> pages = new CopyOnWriteArrayList<>();

    Live(ThreadFactory threads) {
        this.threads = threads;
    }

    public void paints(String topic, Painter painter) {
        painters.put(topic, painter);
    }

    /** Reports that a topic looks different now; returns at once. */
    public void changed(String topic) {
        for (Page page : pages) {
            if (page.topics.contains(topic)) {
                page.dirty.add(topic);
                LockSupport.unpark(page.thread);
            }
        }
    }

    /** Opens a stream for a page that shows these topics; it gets all of them at once. */
    public SseEmitter open(int showId, Set<String> topics) {
        Page page = new Page(showId, topics);
        pages.add(page);
        page.dirty.addAll(topics);
        page.thread.start();
        return page.emitter;
    }

    /** One open page. */
    private final class Page {
        private final int showId;
        private final Set<String> topics;
        private final Set<String> dirty = ConcurrentHashMap.newKeySet();
        private final SseEmitter emitter = new SseEmitter(0L);
        private final Thread thread = threads.newThread(this::run);
        private volatile boolean gone;

        Page(int showId, Set<String> topics) {
            this.showId = showId;
            this.topics = topics;
            emitter.onCompletion(() -> gone = true);
            emitter.onError(e -> gone = true);
        }

        private void run() {
            try {
                while (!gone) {
                    if (dirty.isEmpty()) {
                        LockSupport.parkNanos(this, HEARTBEAT_NANOS);
                    }
                    if (dirty.isEmpty()) {
                        emitter.send(SseEmitter.event().comment("still here"));
                    } else {
                        sendDirty();
                        LockSupport.parkNanos(this, SHORTEST_PAUSE_NANOS);
                    }
                }
            } catch (IOException | IllegalStateException closed) {
                gone = true;
            } finally {
                pages.remove(this);
                end();
            }
        }

        /** A browser that has just left needs no end, and the server says so. */
        private void end() {
            try {
                emitter.complete();
            } catch (IllegalStateException left) {
                gone = true;
            }
        }

        private void sendDirty() throws IOException {
            for (String topic : topics) {
                if (dirty.remove(topic)) {
                    String drawn = painters.getOrDefault(topic, id -> "").paint(showId);
                    if (!drawn.isEmpty()) {
                        emitter.send(SseEmitter.event().name(topic).data(drawn));
                    }
                }
            }
        }
    }
}
