package underbaton.web.live;

import java.util.Map;

/** Orders that can be given over a browser's line, by their names. */
public interface Orders {

    /** Is carried out at once, on the thread of the line; never waits. */
    @FunctionalInterface
    interface Handler {
        void give(int showId);
    }

    Map<String, Handler> orders();

    /** Why an order failed, for people. */
    String words(RuntimeException fault);
}
