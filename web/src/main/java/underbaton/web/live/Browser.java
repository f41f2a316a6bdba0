package underbaton.web.live;

import jakarta.websocket.SendHandler;
import jakarta.websocket.Session;
import java.io.IOException;
import java.security.Principal;
import java.util.ArrayDeque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Queue;
import java.util.Set;

/**
 * One browser at the other end of its line, with all its pages. Nothing waits for it: what is to be sent waits here, of each
 * part the newest drawing alone, and goes out one frame after the other as the network takes them.
 */
final class Browser {

    static final int MOST_PAGES = 200;
    private static final int MOST_TOPICS = 12;
    private static final int MOST_ANSWERS = 200;
    private static final long LONGEST_SEND_MILLIS = 5000;

    private final Session line;
    private final Principal who;
    private final int mostPages;
    private final Map<String, Set<Live.Part>> pages = new HashMap<>();
    private final Map<Live.Part, String> drawings = new LinkedHashMap<>();
    private final Queue<String> answers = new ArrayDeque<>();
    private boolean sending;

    /**
     * @param who opened its line; null where nobody is known
     * @param mostPages that are drawn for it
     */
    Browser(Session line, Principal who, int mostPages) {
        this.line = line;
        this.who = who;
        this.mostPages = mostPages;
        line.getAsyncRemote().setSendTimeout(LONGEST_SEND_MILLIS);
    }

    /** A page of it shows these parts, none when it is gone; gives back what all its pages show. */
    synchronized Set<Live.Part> page(String page, Set<Live.Part> parts) {
        if (parts.isEmpty()) {
            pages.remove(page);
        } else if (parts.size() <= MOST_TOPICS && (pages.containsKey(page) || pages.size() < mostPages)) {
            pages.put(page, parts);
            // It may show nothing yet of what its neighbour got long ago.
            parts.forEach(drawings::remove);
        }
        Set<Live.Part> all = new HashSet<>();
        pages.values().forEach(all::addAll);
        return all;
    }

    void draw(Live.Part part, String frame) {
        synchronized (this) {
            drawings.put(part, frame);
        }
        sendNext();
    }

    void answer(String frame) {
        synchronized (this) {
            if (answers.size() < MOST_ANSWERS) {
                answers.add(frame);
            }
        }
        sendNext();
    }

    /** Shows the pages that the line is there; one that is being written to shows it anyway. */
    void beat(long epochMicros) {
        synchronized (this) {
            if (sending || !answers.isEmpty()) {
                return;
            }
            answers.add(Frames.beat(epochMicros));
        }
        sendNext();
    }

    private void sendNext() {
        String frame;
        synchronized (this) {
            frame = sending ? null : next();
            sending |= frame != null;
        }
        if (frame == null) {
            return;
        }
        SendHandler sent = result -> {
            synchronized (this) {
                sending = false;
            }
            if (result.isOK()) {
                sendNext();
            } else {
                close();
            }
        };
        try {
            line.getAsyncRemote().sendText(frame, sent);
        } catch (RuntimeException gone) {
            close();
        }
    }

    private String next() {
        if (!answers.isEmpty()) {
            return answers.poll();
        }
        Iterator<String> first = drawings.values().iterator();
        if (!first.hasNext()) {
            return null;
        }
        String frame = first.next();
        first.remove();
        return frame;
    }

    Principal who() {
        return who;
    }

    void close() {
        try {
            line.close();
        } catch (IOException | RuntimeException alreadyGone) {
            synchronized (this) {
                drawings.clear();
                answers.clear();
            }
        }
    }
}
