package underbaton.web.live;

import jakarta.annotation.PreDestroy;
import java.security.Principal;
import java.util.Comparator;
import java.util.HashSet;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BiFunction;
import java.util.function.Predicate;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;

/**
 * Keeps open pages up to date. A topic is one part of a page of one show; when it has changed, its painter draws it once, on
 * the one loop of this class, and every browser that shows it gets that drawing. Those who report a change never wait, and
 * neither does the loop: each {@link Browser} sends by itself, and one that reads slowly gets the newest drawing and misses
 * those between.
 */
@Component
public class Live {

    /** Draws a topic for a show; gives back what to send, or an empty text for nothing. */
    @FunctionalInterface
    public interface Painter {
        String paint(int showId);
    }

    /** What a browser can show: a topic of a show. */
    record Part(int showId, String topic) {}

    private static final Logger LOG = LoggerFactory.getLogger(Live.class);
    /** Who has a finger on a key looks at its light. */
    private static final Comparator<Part> UNDER_A_HAND_FIRST = Comparator.comparing(p -> !p.topic.equals("hands"));

    private static final long SHORTEST_PAUSE_NANOS = 20_000_000L;
    private static final long BEAT_NANOS = 400_000_000L;

    private final Map<String, Painter> painters = new ConcurrentHashMap<>();
    private final Map<String, BiFunction<Integer, String, String>> kinds = new ConcurrentHashMap<>();
    private final Map<Part, Set<Browser>> shown = new ConcurrentHashMap<>();
    /** The newest drawing of each part: what looks as before is not sent again. */
    private final Map<Part, String> newest = new ConcurrentHashMap<>();

    private final Set<Part> dirty = ConcurrentHashMap.newKeySet();
    private final Set<Browser> browsers = ConcurrentHashMap.newKeySet();
    private final Loop painting;
    private final Loop beating;

    Live(Loops loops, Clock clock) {
        painting = loops.start("pages", this::paintDirty);
        beating = loops.start("beats to pages", () -> {
            LockSupport.parkNanos(this, BEAT_NANOS);
            browsers.forEach(b -> b.beat(clock.epochMicros()));
        });
    }

    public void paints(String topic, Painter painter) {
        painters.put(topic, painter);
    }

    /** Draws topics of one kind: {@code view:lx} is {@code lx} of the kind {@code view}. */
    public void paintsEach(String kind, BiFunction<Integer, String, String> painter) {
        kinds.put(kind, painter);
    }

    private Painter painter(String topic) {
        int colon = topic.indexOf(':');
        BiFunction<Integer, String, String> kind = colon < 0 ? null : kinds.get(topic.substring(0, colon));
        return kind == null ? painters.get(topic) : showId -> kind.apply(showId, topic.substring(colon + 1));
    }

    /** Reports that a topic, or all of a kind, looks different now, for whatever show; returns at once. */
    public void changed(String topic) {
        boolean any = false;
        for (Part part : shown.keySet()) {
            boolean is = part.topic.equals(topic)
                    || part.topic.startsWith(topic) && part.topic.charAt(topic.length()) == ':';
            any |= is && dirty.add(part);
        }
        if (any) {
            painting.wake();
        }
    }

    /** The topics that are drawn. */
    public Set<String> topics() {
        Set<String> all = new HashSet<>(painters.keySet());
        all.addAll(kinds.keySet());
        return all;
    }

    /** The lines of some are closed at once. @param whose by who opened a line; null where nobody is known */
    public void end(Predicate<Principal> whose) {
        browsers.stream().filter(b -> whose.test(b.who())).forEach(Browser::close);
    }

    // ---- browsers

    void came(Browser browser) {
        browsers.add(browser);
    }

    void left(Browser browser) {
        browsers.remove(browser);
        shown.forEach((part, who) -> drop(part, browser));
    }

    /** From now on a browser gets these parts and no others. */
    void shows(Browser browser, Set<Part> parts) {
        for (Part part : shown.keySet()) {
            if (!parts.contains(part)) {
                drop(part, browser);
            }
        }
        for (Part part : parts) {
            if (painter(part.topic) != null) {
                shown.compute(part, (p, who) -> {
                    Set<Browser> all = who == null ? ConcurrentHashMap.newKeySet() : who;
                    all.add(browser);
                    return all;
                });
            }
        }
    }

    /** Draws these for a page that has just come: it may be older than the newest drawing. */
    void anew(Set<Part> parts) {
        parts.stream().filter(shown::containsKey).forEach(part -> {
            newest.remove(part);
            dirty.add(part);
        });
        painting.wake();
    }

    private void drop(Part part, Browser browser) {
        shown.computeIfPresent(part, (p, who) -> {
            who.remove(browser);
            if (who.isEmpty()) {
                newest.remove(part);
                return null;
            }
            return who;
        });
    }

    // ---- the loop

    private void paintDirty() {
        if (dirty.isEmpty()) {
            LockSupport.parkNanos(this, BEAT_NANOS);
        }
        for (Part part : dirty.stream().sorted(UNDER_A_HAND_FIRST).toList()) {
            dirty.remove(part);
            paint(part);
        }
        LockSupport.parkNanos(this, SHORTEST_PAUSE_NANOS);
    }

    /** One painter that fails leaves the others as they are. */
    private void paint(Part part) {
        if (!shown.containsKey(part)) {
            return;
        }
        try {
            String drawn = painter(part.topic).paint(part.showId);
            // Kept before it is sent: who comes in between is either among those who get it or has it drawn anew.
            if (!drawn.isEmpty() && !drawn.equals(newest.put(part, drawn))) {
                String frame = Frames.drawing(part, drawn);
                shown.getOrDefault(part, Set.of()).forEach(b -> b.draw(part, frame));
            }
        } catch (NoSuchElementException gone) {
            LOG.debug("The part {} of show {} is no longer there", part.topic, part.showId);
        } catch (RuntimeException | StackOverflowError fault) {
            LOG.error("The part {} of show {} cannot be drawn", part.topic, part.showId, fault);
        }
    }

    @PreDestroy
    void close() {
        painting.close();
        beating.close();
    }
}
